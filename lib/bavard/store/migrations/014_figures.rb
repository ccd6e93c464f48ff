# frozen_string_literal: true

# Pictures of people and of what cues show count among a show's files.
Sequel.migration do
  up do
    alter_table(:files) do
      drop_constraint(:kind_is_known)
      add_constraint(:kind_is_known, kind: %w[picture backdrop film font sound figure])
    end
  end

  down do
    from(:files).where(kind: "figure").delete
    alter_table(:files) do
      drop_constraint(:kind_is_known)
      add_constraint(:kind_is_known, kind: %w[picture backdrop film font sound])
    end
  end
end
