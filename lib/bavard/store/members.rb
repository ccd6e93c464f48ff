# frozen_string_literal: true

require "securerandom"
require_relative "link_keys"

module Bavard
  module Store
    # Who helps with a show, who is invited to, and its prompters that open without signing in.
    class Members
      # role:: of Core::Rights; the owner is none of these: the show is theirs
      Member = Struct.new(:show_id, :account_id, :role, :name, :since_ms, keyword_init: true)
      Invitation = Struct.new(:id, :show_id, :token, :role, :name, :made_at_ms, keyword_init: true)
      # acts:: whether whoever has it may do what moderators may; made_by:: an account, which may go: the link goes with it
      PrompterLink = Struct.new(:id, :show_id, :token, :name, :acts, :made_at_ms, :made_by, keyword_init: true)
      TOKEN_BYTES = 24
      INVITED_FOR_MS = 7 * 86_400 * 1000

      # @param box [SecretBox, nil] with which links are closed
      def initialize(db, box = nil)
        @db = db
        @links = LinkKeys.new(db[:prompter_links], box)
        @invitations = LinkKeys.new(db[:invitations], nil)
      end

      # Closes links that stand in the open, and keeps of invitations a digest.
      def seal
        @links.seal
        @db[:invitations].exclude(token: nil).select_map(%i[id token]).each do |id, token|
          @db[:invitations].where(id:).update(token: nil, token_digest: LinkKeys.digest(token))
        end
      end

      def of_show(show_id) = @db[:members].where(show_id:).order(:since_ms).map { |row| Member.new(**row) }
      def of_account(account_id) = @db[:members].where(account_id:).order(:since_ms).map { |row| Member.new(**row) }

      # @return [Member, nil]
      def find(show_id, account_id) = @db[:members].first(show_id:, account_id:)&.then { |row| Member.new(**row) }

      def change_role(show_id, account_id, role) = @db[:members].where(show_id:, account_id:).update(role:)

      # With the links they made, which they may have kept.
      # @return [Array<Integer>] ids of those links
      def remove(show_id, account_id)
        @db.transaction do
          @db[:members].where(show_id:, account_id:).delete
          take_prompters_back(show_id, account_id)
        end
      end

      # @return [Array<Integer>] ids of the links somebody made
      def take_prompters_back(show_id, account_id)
        made = @db[:prompter_links].where(show_id:, made_by: account_id)
        made.select_map(:id).tap { made.delete }
      end

      # @return [Invitation]
      def invite(show_id, role:, name:, at_ms:)
        token = SecureRandom.urlsafe_base64(TOKEN_BYTES)
        id = @db[:invitations].insert(show_id:, token_digest: LinkKeys.digest(token), role:, name:, made_at_ms: at_ms)
        Invitation.new(id:, show_id:, token:, role:, name:, made_at_ms: at_ms)
      end

      # A week long; what is older is thrown away when they are looked at.
      def invitations(show_id, now_ms)
        @db[:invitations].where(show_id:).where { made_at_ms < now_ms - INVITED_FOR_MS }.delete
        @db[:invitations].where(show_id:).order(:id).map { |row| invitation_of(row) }
      end

      # @return [Invitation, nil] nil where it was used or taken back, or is older than a week
      def invitation(token, now_ms)
        row = @invitations.row(token)
        invitation_of(row) if row && row[:made_at_ms] >= now_ms - INVITED_FOR_MS
      end

      # @return [Integer] how many there were
      # @return [String, nil] for whom it was; nil where there is none
      def take_invitation_back(show_id, id) = @db[:invitations].where(show_id:, id:).returning(:name).delete.first&.fetch(:name)

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
      def add_prompter(show_id, name:, acts:, at_ms:, made_by: nil)
        token = SecureRandom.urlsafe_base64(TOKEN_BYTES)
        row = {show_id:, name:, acts:, made_at_ms: at_ms, made_by:}
        PrompterLink.new(id: @db[:prompter_links].insert(row.merge(@links.columns(token))), token:, **row)
      end

      def prompters(show_id) = @db[:prompter_links].where(show_id:).order(:id).map { |row| link_of(row) }

      # @return [PrompterLink, nil]
      def prompter(token) = @links.row(token)&.then { |row| link_of(row) }

      # @return [Integer] how many there were
      def take_prompter_back(show_id, id) = @db[:prompter_links].where(show_id:, id:).delete

      private

      def link_of(row) = PrompterLink.new(token: @links.token(row), **row.slice(:id, :show_id, :name, :acts, :made_at_ms, :made_by))
      def invitation_of(row) = Invitation.new(**row.slice(:id, :show_id, :role, :name, :made_at_ms))
    end
  end
end
