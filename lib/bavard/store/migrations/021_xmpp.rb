# frozen_string_literal: true

# Feeds of XMPP rooms.
Sequel.migration do
  kinds = %w[irc polling socket inbox voice described microphones]

  up do
    alter_table(:feeds) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: [*kinds, "xmpp"]
    end
  end

  down do
    from(:feeds).where(kind: "xmpp").delete
    alter_table(:feeds) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: kinds
    end
  end
end
