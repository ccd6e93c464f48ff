# frozen_string_literal: true

# A show, what comes in and what goes out. Times ending in _ms are Unix milliseconds.
Sequel.migration do
  change do
    create_table(:shows) do
      primary_key :id, type: :Bignum
      foreign_key :account_id, :accounts, type: :Bignum, null: false, unique: true, on_delete: :cascade
      String :name, null: false
      String :host_name, null: false
      jsonb :gate, null: false
      constraint(:name_is_short) { char_length(name) =~ (1..80) }
    end

    create_table(:feeds) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, index: true, on_delete: :cascade
      String :kind, null: false
      String :name, null: false
      String :shape, null: false
      String :colour, null: false
      jsonb :address, null: false
      String :secret
      jsonb :mapping, null: false, default: "{}"
      TrueClass :wanted, null: false, default: true
      Bignum :heard_at_ms
      Bignum :gap_from_ms
      Bignum :gap_to_ms
      Bignum :removed_at_ms
      constraint(:kind_is_known, kind: %w[irc])
      constraint(:gap_is_whole, Sequel.lit("(gap_from_ms IS NULL) = (gap_to_ms IS NULL) AND coalesce(gap_from_ms <= gap_to_ms, true)"))
    end

    create_table(:stages) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, index: true, on_delete: :cascade
      String :name, null: false
      String :token, null: false, unique: true
      String :backdrop, null: false, default: "dawn"
      jsonb :draft, null: false
      Integer :on_air
      Bignum :cleared_at_line, null: false, default: 0
      constraint(:token_is_long) { char_length(token) >= 32 }
    end

    create_table(:revisions) do
      foreign_key :stage_id, :stages, type: :Bignum, null: false, on_delete: :cascade
      Integer :number, null: false
      jsonb :document, null: false
      Bignum :made_at_ms, null: false
      primary_key [:stage_id, :number]
      constraint(:number_counts_from_one) { number >= 1 }
    end

    create_table(:lines) do
      Bignum :id, primary_key: true
      foreign_key :show_id, :shows, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :feed_id, :feeds, type: :Bignum, null: false, on_delete: :cascade
      String :platform_id
      String :login, null: false
      String :display_name, null: false
      String :colour
      jsonb :badges, null: false, default: "[]"
      String :kind, null: false
      String :text, null: false
      Bignum :arrived_at_ms, null: false
      Bignum :platform_time_ms
      Bignum :shown_at_ms, null: false
      String :action, null: false
      String :rule
      String :seen
      TrueClass :aired, null: false, default: false
      TrueClass :pulled, null: false, default: false
      index [:show_id, :id]
      index [:feed_id, :platform_id], unique: true, where: Sequel.lit("platform_id IS NOT NULL")
      constraint(:kind_is_known, kind: %w[said action])
      constraint(:action_is_known, action: %w[pass drop])
    end
  end
end
