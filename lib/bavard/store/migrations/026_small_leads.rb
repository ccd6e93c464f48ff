# frozen_string_literal: true

# What was seen of the ways to a second platform, voices, alerts and somebody who helps.
Sequel.migration do
  change do
    add_column :shows, :small_leads, :jsonb, null: false, default: "{}"
  end
end
