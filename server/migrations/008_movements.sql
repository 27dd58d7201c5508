-- Presets may hold movements, layers a motion path: fields that older data lacks. The presets that show them are added to
-- libraries of before by the application (see UPGRADES).
comment on column items.kind is 'preset, rig, curve, house or recipe';
