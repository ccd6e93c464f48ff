# frozen_string_literal: true

# How far a new show has come on its way to the first line on the picture: nothing, where it needs to be led nowhere.
Sequel.migration do
  change do
    add_column :shows, :lead, :jsonb
  end
end
