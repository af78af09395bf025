"""Long trials that `script/torture` runs: kills, full disks, refused calls, mutants, hostile names, random actions."""
