# frozen_string_literal: true

# Feeds of platforms that somebody described.
Sequel.migration do
  up do
    alter_table(:feeds) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: %w[irc polling socket inbox voice described]
    end
  end

  down do
    from(:feeds).where(kind: "described").delete
    alter_table(:feeds) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: %w[irc polling socket inbox voice]
    end
  end
end
