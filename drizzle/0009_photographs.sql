UPDATE project SET settings = '{"keepPosition":true}'::jsonb || settings;
