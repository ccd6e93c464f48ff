# frozen_string_literal: true

# By which clock a feed was heard last.
Sequel.migration do
  change do
    add_column :feeds, :heard_mark, :jsonb
  end
end
