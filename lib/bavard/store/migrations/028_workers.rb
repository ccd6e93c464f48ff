# frozen_string_literal: true

# Processes that share the shows of one installation, and where each show runs.
Sequel.migration do
  change do
    create_table(:workers) do
      # Where the others, and whoever stands in front, reach it.
      String :address, primary_key: true
      # What sets its lines' ids apart.
      Integer :number, null: false, unique: true
      column :seen_at, :timestamptz, null: false, default: Sequel::CURRENT_TIMESTAMP
    end

    create_table(:show_places) do
      foreign_key :show_id, :shows, type: :Bignum, primary_key: true, on_delete: :cascade
      String :address, null: false
      # Where it is to go on, as somebody has asked for.
      String :wanted_at
    end
  end
end
