# frozen_string_literal: true

require "openssl"
require "rack"
require "roda"
require_relative "../../../store/secret_box"

module Bavard
  module Web
    class SignIn < Roda
      # The codes that stand in for a second factor that was lost, as the database keeps them: closed with the installation's key, so
      # that whoever has the database alone reads none, and whose they are still sees them.
      class Recovery
        # What is shorter stands there in the open, from before: a code is 43 characters long, one that is closed 96.
        LONGEST_OPEN = 64

        # @param secret [String] the installation's, of sessions
        def initialize(secret)
          @box = Store::SecretBox.new(OpenSSL::HMAC.digest("SHA256", secret, "recovery codes"))
        end

        def close(code) = @box.close(code)

        # @return [Hash{String => String}] codes by how they are kept; those that were closed with another key are none
        def codes(kept) = kept.to_h { |one| [one, @box.open(one)] }.compact

        # @return [String, nil] how the code is kept; takes as long whichever of them it is
        def find(kept, code) = codes(kept).select { |_, one| Rack::Utils.secure_compare(one, code) }.keys.first

        # Closes what stands in the open.
        #
        # @param table [Sequel::Dataset] with id and code
        def seal(table)
          table.where { length(code) <= LONGEST_OPEN }.select_map(%i[id code]).each { |id, code| table.where(id:, code:).update(code: close(code)) }
        end
      end

      # How Rodauth reads and writes them.
      CLOSED_CODES = lambda do |site|
        recovery = Recovery.new(site.session_secret)
        auth_class_eval do
          define_method(:recovery) { recovery }

          def add_recovery_code
            recovery_codes_ds.insert(recovery_codes_id_column => session_value, recovery_codes_column => recovery.close(new_recovery_code))
          end

          # Each serves once.
          def recovery_code_match?(code)
            kept = recovery.find(recovery_codes_ds.select_map(recovery_codes_column), code)
            kept ? recovery_codes_ds.where(recovery_codes_column => kept).delete == 1 : false
          end

          private

          def _recovery_codes = recovery.codes(recovery_codes_ds.select_map(recovery_codes_column)).values
        end
      end
    end
  end
end
