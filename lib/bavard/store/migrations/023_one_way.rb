# frozen_string_literal: true

# Feeds of platforms that were read by programs of their own are read by descriptions; what they read stays, and from where on.
Sequel.migration do
  kinds = %w[irc xmpp inbox voice described microphones]

  up do
    from(:feeds).where(kind: %w[polling socket]).update(kind: "described")
    alter_table(:feeds) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: kinds
    end
  end

  down do
    alter_table(:feeds) do
      drop_constraint :kind_is_known
      add_constraint :kind_is_known, kind: [*kinds, "polling", "socket"]
    end
  end
end
