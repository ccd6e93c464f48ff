# frozen_string_literal: true

# Feeds of several kinds, permissions of platforms, and a log that can be searched.
Sequel.migration do
  up do
    create_table(:permissions) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, index: true, on_delete: :cascade
      String :platform, null: false
      String :account, null: false
      String :name, null: false
      jsonb :may, null: false, default: "[]"
      String :secret, null: false
      Bignum :expires_at_ms
      Bignum :since_ms, null: false
      unique %i[show_id platform account]
    end

    alter_table(:feeds) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: %w[irc polling socket inbox]
      add_column :platform, String
      add_column :draft_only, TrueClass, null: false, default: false
      add_column :cursor, :jsonb
      add_foreign_key :permission_id, :permissions, type: :Bignum, on_delete: :set_null
    end

    alter_table(:lines) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: %w[said action reply paid follow subscription renewal gift tip purchase visit own]
      add_column :detail, :jsonb, null: false, default: "{}"
      add_column :trace, :jsonb, null: false, default: "[]"
      add_index [:feed_id, :id]
    end
    run "ALTER TABLE lines ADD COLUMN search tsvector GENERATED ALWAYS AS (to_tsvector('simple', display_name || ' ' || text)) STORED"
    run "CREATE INDEX lines_search_index ON lines USING gin (search) WITH (fastupdate = on)"
    run "CREATE INDEX lines_login_index ON lines (show_id, lower(login))"
    run "CREATE INDEX lines_display_name_index ON lines (show_id, lower(display_name))"

    alter_table(:shows) do
      add_column :keep_days, Integer, null: false, default: 90
      add_constraint(:kept_for_a_while) { (keep_days >= 1) & (keep_days <= 3650) }
    end
  end

  down do
    alter_table(:shows) do
      drop_constraint :kept_for_a_while
      drop_column :keep_days
    end
    from(:lines).exclude(kind: %w[said action]).delete
    run "DROP INDEX lines_display_name_index"
    run "DROP INDEX lines_login_index"
    alter_table(:lines) do
      drop_column :search
      drop_index [:feed_id, :id]
      drop_column :trace
      drop_column :detail
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: %w[said action]
    end
    from(:feeds).exclude(kind: "irc").delete
    alter_table(:feeds) do
      drop_column :permission_id
      drop_column :cursor
      drop_column :draft_only
      drop_column :platform
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: %w[irc]
    end
    drop_table(:permissions)
  end
end
