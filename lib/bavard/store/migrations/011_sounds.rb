# frozen_string_literal: true

# Sounds stand beside pictures, films and fonts; shelf: under which a host keeps it.
Sequel.migration do
  up do
    alter_table(:files) do
      drop_constraint(:kind_is_known)
      add_constraint(:kind_is_known, kind: %w[picture backdrop film font sound])
    end
  end

  down do
    from(:files).where(kind: "sound").delete
    alter_table(:files) do
      drop_constraint(:kind_is_known)
      add_constraint(:kind_is_known, kind: %w[picture backdrop film font])
    end
  end
end
