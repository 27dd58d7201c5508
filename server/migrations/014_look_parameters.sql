-- Looks can have parameters, on which numbers and colours of them hang; looks of before are read as they were. The one with a
-- parameter that a new library begins with is added to libraries of before by the application (see UPGRADES).
comment on column items.kind is 'preset, rig, look (with parameters), palette, curve, house or recipe';
