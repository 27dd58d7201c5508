-- Libraries of before have no rigs: those that a new one begins with are added by the application (see UPGRADES).
comment on column runs.preset_id is 'the preset or the rig that the run used';
