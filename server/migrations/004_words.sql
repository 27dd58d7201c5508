-- “Carry through” is now called “move throughout”, and its phase “throughout”. Published revisions never change: their
-- old word reads as the new one.
update runs set body = jsonb_set(body, '{recipe,operation}', '"move-throughout"')
where body -> 'recipe' ->> 'operation' = 'carry-through';

update drafts set content = jsonb_set(content, '{body,phase}', '"throughout"')
where content -> 'body' ->> 'phase' = 'through';

update drafts set content = jsonb_set(content, '{body,operation}', '"move-throughout"')
where content -> 'body' ->> 'operation' = 'carry-through';
