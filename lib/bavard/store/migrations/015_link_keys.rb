# frozen_string_literal: true

# Keys in links are found by their digest, and closed with the installation's key; those of invitations are shown once and kept as a digest
# alone. What is there already is closed by the next start.
Sequel.migration do
  up do
    %i[stages prompter_links invitations].each do |table|
      alter_table(table) do
        add_column :token_digest, String
        add_column :token_closed, String
        set_column_allow_null :token
        add_unique_constraint :token_digest
        add_constraint(:has_a_token) { (Sequel[:token] !~ nil) | (Sequel[:token_digest] !~ nil) }
      end
    end
  end

  down do
    # What is closed cannot be opened here: those links end, and a stage has a new one.
    %i[prompter_links invitations].each { |table| from(table).where(token: nil).delete }
    from(:stages).where(token: nil).update(token: Sequel.lit("md5(random()::text) || md5(random()::text)"))
    %i[stages prompter_links invitations].each do |table|
      alter_table(table) do
        drop_constraint(:has_a_token)
        drop_column :token_digest
        drop_column :token_closed
        set_column_not_null :token
      end
    end
  end
end
