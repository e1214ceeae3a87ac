UPDATE project SET settings = '{"stamps":["Checked","For coordination","Superseded","As built","Hold"]}'::jsonb || settings;
