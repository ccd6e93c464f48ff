# frozen_string_literal: true

# What reaches the screen: verdicts of more kinds, lines that are held, people who are left out or known, and who did what.
Sequel.migration do
  up do
    alter_table(:lines) do
      drop_constraint :action_is_known
      add_constraint :action_is_known, action: %w[pass calm mask hold drop]
      add_column :held, TrueClass, null: false, default: false
    end
    run "CREATE INDEX lines_held_index ON lines (show_id) WHERE held"

    create_table(:left_out) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :feed_id, :feeds, type: :Bignum, on_delete: :cascade
      String :name, null: false
      Bignum :until_ms
      Bignum :at_ms, null: false
      String :by
      index %i[show_id]
      constraint(:name_is_short) { char_length(name) =~ (1..120) }
    end

    # Whoever was heard on a feed.
    create_table(:people) do
      foreign_key :feed_id, :feeds, type: :Bignum, null: false, on_delete: :cascade
      String :login, null: false
      String :display_name, null: false
      Bignum :first_ms, null: false
      Bignum :last_ms, null: false
      Bignum :lines, null: false, default: 0
      String :note
      String :noted_by
      Bignum :noted_ms
      primary_key %i[feed_id login]
      index %i[feed_id last_ms]
      constraint(:note_is_short, Sequel.lit("note IS NULL OR char_length(note) <= 2000"))
    end
    run "INSERT INTO people (feed_id, login, display_name, first_ms, last_ms, lines) SELECT feed_id, login, max(display_name), " \
        "min(arrived_at_ms), max(arrived_at_ms), count(*) FROM lines WHERE kind IN ('said', 'action', 'reply', 'paid') GROUP BY feed_id, login"

    # What people with a role did, and whether it was taken back.
    create_table(:deeds) do
      Bignum :id, primary_key: true
      foreign_key :show_id, :shows, type: :Bignum, null: false, on_delete: :cascade
      Bignum :at_ms, null: false
      String :by, null: false
      String :what, null: false
      Bignum :line_id
      String :about
      jsonb :detail, null: false, default: "{}"
      String :undone_by
      Bignum :undone_ms
      index %i[show_id id]
      index %i[show_id line_id]
    end
    # Those who were left out by name in a show's gate.
    run <<~SQL
      INSERT INTO left_out (show_id, name, at_ms)
      SELECT shows.id, left(name, 120), 0 FROM shows, jsonb_array_elements_text(gate->'left_out'->'names') AS name WHERE name <> ''
    SQL
  end

  down do
    drop_table(:deeds)
    drop_table(:people)
    drop_table(:left_out)
    from(:lines).exclude(action: %w[pass drop]).update(action: "pass")
    alter_table(:lines) do
      drop_column :held
      drop_constraint :action_is_known
      add_constraint :action_is_known, action: %w[pass drop]
    end
  end
end
