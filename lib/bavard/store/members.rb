# frozen_string_literal: true

require "securerandom"

module Bavard
  module Store
    # Who helps with a show, who is invited to, and its prompters that open without signing in.
    class Members
      # role:: of Core::Rights; the owner is none of these: the show is theirs
      Member = Struct.new(:show_id, :account_id, :role, :name, :since_ms, keyword_init: true)
      Invitation = Struct.new(:id, :show_id, :token, :role, :name, :made_at_ms, keyword_init: true)
      # acts:: whether whoever has it may do what moderators may
      PrompterLink = Struct.new(:id, :show_id, :token, :name, :acts, :made_at_ms, keyword_init: true)
      TOKEN_BYTES = 24

      def initialize(db)
        @db = db
      end

      def of_show(show_id) = @db[:members].where(show_id:).order(:since_ms).map { |row| Member.new(**row) }
      def of_account(account_id) = @db[:members].where(account_id:).order(:since_ms).map { |row| Member.new(**row) }

      # @return [Member, nil]
      def find(show_id, account_id) = @db[:members].first(show_id:, account_id:)&.then { |row| Member.new(**row) }

      def change_role(show_id, account_id, role) = @db[:members].where(show_id:, account_id:).update(role:)
      def remove(show_id, account_id) = @db[:members].where(show_id:, account_id:).delete

      # @return [Invitation]
      def invite(show_id, role:, name:, at_ms:)
        token = SecureRandom.urlsafe_base64(TOKEN_BYTES)
        id = @db[:invitations].insert(show_id:, token:, role:, name:, made_at_ms: at_ms)
        Invitation.new(id:, show_id:, token:, role:, name:, made_at_ms: at_ms)
      end

      def invitations(show_id) = @db[:invitations].where(show_id:).order(:id).map { |row| Invitation.new(**row) }
      def invitation(token) = @db[:invitations].first(token:)&.then { |row| Invitation.new(**row) }
      # @return [Integer] how many there were
      def take_invitation_back(show_id, id) = @db[:invitations].where(show_id:, id:).delete

      # Used once: whoever takes it up is a member from then on, with the role it says.
      #
      # @return [Member, nil] nil where it was used or taken back meanwhile
      def join(invitation, account_id, at_ms)
        @db.transaction do
          next if @db[:invitations].where(id: invitation.id).delete.zero?

          row = {show_id: invitation.show_id, account_id:, role: invitation.role, name: invitation.name, since_ms: at_ms}
          @db[:members].insert_conflict(target: %i[show_id account_id], update: {role: invitation.role, name: invitation.name}).insert(row)
          Member.new(**row)
        end
      end

      # @return [PrompterLink]
      def add_prompter(show_id, name:, acts:, at_ms:)
        token = SecureRandom.urlsafe_base64(TOKEN_BYTES)
        id = @db[:prompter_links].insert(show_id:, token:, name:, acts:, made_at_ms: at_ms)
        PrompterLink.new(id:, show_id:, token:, name:, acts:, made_at_ms: at_ms)
      end

      def prompters(show_id) = @db[:prompter_links].where(show_id:).order(:id).map { |row| PrompterLink.new(**row) }
      def prompter(token) = @db[:prompter_links].first(token:)&.then { |row| PrompterLink.new(**row) }
      # @return [Integer] how many there were
      def take_prompter_back(show_id, id) = @db[:prompter_links].where(show_id:, id:).delete
    end
  end
end
