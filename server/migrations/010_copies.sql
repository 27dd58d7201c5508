-- Runs may bring layers, and looks have more parts: fields that older data lacks. The rig that drives all copies of a run
-- together is added to libraries of before by the application (see UPGRADES).
comment on column items.kind is 'preset, rig, curve, house or recipe';
