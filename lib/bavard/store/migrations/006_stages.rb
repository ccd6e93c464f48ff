# frozen_string_literal: true

# Stages in an order, taken away and put back, with what is set in them while the broadcast goes on; and the files that
# stand on them.
Sequel.migration do
  change do
    alter_table(:stages) do
      add_column :place, Integer, null: false, default: 0
      add_column :removed_at_ms, :Bignum
      add_column :air_at_once, TrueClass, null: false, default: false
      add_column :live, :jsonb, null: false, default: "{}"
    end

    alter_table(:revisions) do
      add_column :by, String
    end

    # Pictures, films and fonts of a show, by the hash of what is in them; backdrop: the host's picture of a broadcast.
    create_table(:files) do
      String :id, null: false
      foreign_key :show_id, :shows, type: :Bignum, null: false, on_delete: :cascade
      String :kind, null: false
      String :name, null: false
      Bignum :bytes, null: false
      Integer :width
      Integer :height
      jsonb :more, null: false, default: "{}"
      Bignum :made_at_ms, null: false
      primary_key %i[show_id id kind]
      constraint(:kind_is_known, kind: %w[picture backdrop film font])
      constraint(:name_is_short) { char_length(name) =~ (1..120) }
    end
  end
end
