# frozen_string_literal: true

# After how many seconds without a word chat leaves a screen, which cannot know what was taken away meanwhile; nothing: never.
Sequel.migration do
  change do
    alter_table(:stages) { add_column :doubt_s, Integer, default: 15 }
  end
end
