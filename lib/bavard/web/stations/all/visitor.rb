# frozen_string_literal: true

require_relative "../../../core/rights"

module Bavard
  module Web
    # Who is signed in, in which show they are, and with which role.
    #
    # operator:: whether they run this installation
    # record:: Store::Shows::Brief; role:: of Core::Rights; name:: as others see it; shows:: [record, role] of all they are in
    Visitor = Struct.new(:account_id, :record, :role, :name, :shows, :operator) do
      def may?(what) = Core::Rights.may?(role, what)
    end

    # See above.
    class Visitor
      # In the session: which of several shows.
      CHOSEN = "show"

      # @param stores [Store::Stores]
      # @param account_id [Integer]
      # @param chosen [Integer, nil] a show's id
      # @return [Visitor, nil] nil where they are in no show
      def self.of(stores, account_id, chosen)
        own = stores.shows.brief_of_account(account_id)
        joined = stores.team.of_account(account_id).filter_map do |member|
          (show = stores.shows.brief(member.show_id)) && [show, member.role, member.name]
        end
        all = joined.dup
        all.unshift([own, "owner", own.host_name]) if own
        record, role, name = all.find { |show, *| show.id == chosen } || first(stores, own, all)
        record && new(account_id, record, role, name, all.map { |show, one, *| [show, one] }, stores.accounts.operator?(account_id))
      end

      # Also while the database does not answer, for who was there before.
      #
      # @param site [Site]
      def self.known(site, account_id, chosen) = site.remembered.of(:visitor, account_id, chosen) { of(site.stores, account_id, chosen) }

      # Who only helps elsewhere has a show of their own in which nothing was ever connected.
      def self.first(stores, own, all)
        return all.first if all.size < 2 || (own && stores.feeds.of_show(own.id).any?)

        all[1]
      end
      private_class_method :first
    end
  end
end
