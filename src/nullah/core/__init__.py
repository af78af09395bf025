"""All computation: no Qt, no files, no clock, no network; every function pure."""
