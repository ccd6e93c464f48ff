# frozen_string_literal: true

# Whether a line's platform deleted it, so that nobody's undoing brings it back; and by which mark it was last taken away or put back, of
# those that grow with time, for they come by two ways and the later one counts.
Sequel.migration do
  change do
    alter_table(:lines) do
      add_column :deleted, TrueClass, null: false, default: false
      add_column :marked, :Bignum, null: false, default: 0
    end
  end
end
