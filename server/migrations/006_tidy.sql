-- What layers and runs were before they were packed (005).
drop table layers_before;
drop table runs_before;
