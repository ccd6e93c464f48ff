# frozen_string_literal: true

require_relative "../../../error"
require_relative "../../../live/intake/feed_kinds"
require_relative "../../../live/intake/trial"
require_relative "../../../store/feeds"
require_relative "feed_marks"

module Bavard
  module Web
    # A feed that a host is about to add, from what the form says.
    class NewFeed
      LONGEST_NAME = 60
      WITHOUT_PLATFORM = [Feeds::Irc, Feeds::Xmpp, Feeds::Activities, Feeds::Microphones].map { |kind| kind::KIND }.freeze
      BY_DESCRIPTION = [Feeds::Described, Feeds::Voice].freeze
      # There is nothing to try before somebody came.
      COME_TO_US = [Feeds::Activities, Feeds::Microphones].freeze

      # @param platform [Feeds::Platform]
      # @param account [String] by which permission was given
      # @return [Hash] what a feed reads then: where it does not know yet what to read, or read what was the account's, the new one's own
      def self.address_of(feed, platform, account)
        first = platform.description&.asks&.first or return feed.address
        theirs = feed.permission && feed.address[first.name] == feed.permission.account
        return feed.address unless theirs || platform.description.lacking(feed.address).any?

        feed.address.merge(first.name => account)
      end

      # @param twin [Store::Feeds::Feed]
      # @return [String] why it is not there a second time
      def self.twice(twin)
        "“#{twin.name}” #{twin.wanted ? "reads that already: all of it would come twice" : "has that already. Connect it in its lane"}."
      end

      # Whether a feed would be let in, and what it would read.
      #
      # @param feed [Store::Feeds::Feed]
      # @param options [Hash] platform or door, as its kind wants them
      # @return [Live::Trial::Result]
      def self.try(site, feed, **options)
        Live::Trial.new(feed, clock: site.clock, **options).run
      end

      # @param site [Site]
      # @param platforms [Hash{String => Feeds::Platform}] that this show can read
      # @param given [Hash{String => String}] platform (its key) or kind; and what that kind asks for
      # @raise [Bavard::Error] naming the field
      def initialize(site, platforms, given)
        @site = site
        @platform = platforms[given["platform"]]
        @kind_name = if @platform
          @platform.kind
        else
          given["kind"].to_s.then { |name| name.empty? ? Feeds::Irc::KIND : name }
        end
        @kind = Live::FEED_KINDS[@kind_name]
        known = @kind && (@platform || WITHOUT_PLATFORM.include?(@kind_name))
        raise Error.new("There is no kind of feed called that.", field: "kind") unless known

        @draft_only = given["draft_only"] == "1"
        @read = read(given)
        @name = given["name"].to_s.strip[0, LONGEST_NAME]
      end

      # @return [Live::Trial::Result, nil] nil where there is nothing to try
      def try
        return if COME_TO_US.include?(@kind)

        options = [Feeds::Irc, Feeds::Xmpp].include?(@kind) ? {door: @site.door} : {platform: @platform, permission: nil}
        feed = Store::Feeds::Feed.new(id: 0, kind: @kind_name, address: @read[:address], password: @read[:password],
          mapping: @platform&.mapping || {})
        NewFeed.try(@site, feed, **options).tap { |result| result.field &&= field }
      end

      # @return [Store::Feeds::Feed, nil] of the show, that hears the same
      def twin(show_id)
        return if COME_TO_US.include?(@kind)

        place = @kind.place(@read[:address], @read[:password])
        @site.stores.feeds.of_show(show_id).find do |feed|
          [feed.kind, feed.platform] == [@kind_name, @platform&.key] && @kind.place(feed.address, feed.password) == place
        end
      end

      # @param permission [Core::Permission, nil]
      # @return [Store::Feeds::Feed]
      def create(show_id, permission: nil)
        @site.stores.ceilings.room(show_id, "feeds")
        shape, colour = mark(show_id)
        @site.stores.feeds.create(show_id, kind: @kind_name, name: name, shape:, colour:, address: @read[:address], password: @read[:password],
          mapping: mapping, platform: @platform&.key, draft_only: @draft_only, permission_id: permission&.id)
      end

      private

      def read(given)
        return @kind.read(given, @platform) if BY_DESCRIPTION.include?(@kind)
        return @kind.read(given) unless @platform&.address

        @kind.read(given.merge(@platform.address) { |_, typed, fixed| typed.to_s.empty? ? fixed : typed })
      end

      # @return [String] of the form, by which it was said where to read
      def field
        return "channel" unless BY_DESCRIPTION.include?(@kind) && @platform.description.rooms.nil?

        asked = @platform.description.asks.reverse.find { |ask| @read[:address][ask.name] }
        asked && Feeds::Described.field(@platform, asked)
      end

      def name
        return @name unless @name.empty?

        @platform&.name || @read[:name]
      end

      # What is described stays where it is described.
      def mapping = (@platform unless @platform&.description)&.mapping || {}

      # The platform's own, unless another feed has it already.
      def mark(show_id)
        feeds = @site.stores.feeds.of_show(show_id)
        ours = @platform && [@platform.shape, @platform.colour]
        ours && feeds.none? { |feed| [feed.shape, feed.colour] == ours } ? ours : FeedMarks.next(feeds)
      end
    end
  end
end
