# frozen_string_literal: true

# E-mail addresses are the same in any case.
Sequel.migration do
  up { run "CREATE EXTENSION IF NOT EXISTS citext" }
  down { run "DROP EXTENSION IF EXISTS citext" }
end
