# frozen_string_literal: true

# A show's cue sheet: the document of Core::Cues::Settings, or nothing while it is as it comes.
Sequel.migration do
  change do
    alter_table(:shows) do
      add_column :cues, :jsonb
    end
  end
end
