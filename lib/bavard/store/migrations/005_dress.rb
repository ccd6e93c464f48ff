# frozen_string_literal: true

# What lines wear: pictures, shelves of emotes, phrases, badges. A picture's id is the hash of what it was made from.
Sequel.migration do
  change do
    create_table(:pictures) do
      String :id, primary_key: true
      Integer :width, null: false
      Integer :height, null: false
      Integer :frames, null: false
      Bignum :made_at_ms, null: false
      constraint(:id_is_a_hash, Sequel.lit("id ~ '^[0-9a-f]{32}$'"))
    end

    # Where pictures come from. One that was refused is not asked for again until retry_at_ms.
    create_table(:addresses) do
      String :address, primary_key: true
      foreign_key :picture_id, :pictures, type: String, on_delete: :set_null
      String :refused
      Bignum :fetched_at_ms, null: false
    end

    create_table(:shelves) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, index: true, on_delete: :cascade
      foreign_key :feed_id, :feeds, type: :Bignum, on_delete: :cascade
      String :name, null: false
      Integer :position, null: false
      TrueClass :on, null: false, default: true
      jsonb :off_feeds, null: false, default: "[]"
      String :address
      String :said
      Bignum :read_at_ms
      Bignum :removed_at_ms
      constraint(:name_is_short) { char_length(name) =~ (1..80) }
    end

    create_table(:emotes) do
      primary_key :id, type: :Bignum
      foreign_key :shelf_id, :shelves, type: :Bignum, null: false, on_delete: :cascade
      String :code, null: false
      foreign_key :picture_id, :pictures, type: String, null: false
      TrueClass :overlay, null: false, default: false
      TrueClass :any_case, null: false, default: false
      Bignum :used, null: false, default: 0
      Bignum :used_at_ms
      unique [:shelf_id, :code]
      constraint(:code_is_a_word, Sequel.lit("code ~ '^\\S{1,100}$'"))
    end

    create_table(:phrases) do
      primary_key :id, type: :Bignum
      foreign_key :show_id, :shows, type: :Bignum, null: false, on_delete: :cascade
      String :words, null: false
      foreign_key :picture_id, :pictures, type: String, null: false
      unique [:show_id, :words]
      constraint(:words_are_short) { char_length(words) =~ (1..100) }
    end

    # A kind of badge as a feed sends it. theirs: the platform's picture, by its address; ours: the host's.
    create_table(:badges) do
      foreign_key :feed_id, :feeds, type: :Bignum, null: false, on_delete: :cascade
      String :kind, null: false
      TrueClass :shown, null: false, default: true
      String :theirs
      foreign_key :picture_id, :pictures, type: String
      primary_key [:feed_id, :kind]
    end
  end
end
