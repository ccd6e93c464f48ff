# frozen_string_literal: true

# Voice rooms as feeds, and the cast: what the people of voice rooms wear.
Sequel.migration do
  up do
    alter_table(:feeds) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: %w[irc polling socket inbox voice]
    end
    create_table(:cast_members) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, on_delete: :cascade
      String :service, null: false
      String :key, null: false
      String :name, null: false
      String :short
      String :colour
      String :face
      column :states, :jsonb, null: false, default: "{}"
      TrueClass :host, null: false, default: false
      Bignum :seen_at_ms, null: false
      unique %i[show_id service key]
      constraint(:key_is_short) { char_length(key) <= 200 }
      constraint(:name_is_short) { char_length(name) <= 200 }
      constraint(:short_is_short) { (short =~ nil) | (char_length(short) <= 60) }
      constraint(:colour_is_colour) { (colour =~ nil) | (colour =~ /^#[0-9a-f]{6}$/) }
    end
  end

  down do
    drop_table :cast_members
    from(:feeds).where(kind: "voice").delete
    alter_table(:feeds) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: %w[irc polling socket inbox]
    end
  end
end
