# frozen_string_literal: true

require_relative "../../../core/dress/badge"
require_relative "../../../live/lines/line_card"

module Bavard
  module Web
    # Everything the Dress station shows, as plain data: shelves, phrases, badges by kind and feed, and which shelf wins.
    class DressSheet
      # A made-up viewer who tries lines.
      TRIED = ["kestrel_ann", "#f3b634"].freeze
      # Unused for this long counts as unused.
      MOST_EMOTES_SHOWN = 600

      # A line dressed as it would be, with what is to be said about it.
      #
      # @param show [Live::Show] in its own thread
      # @param feed_id [Integer, nil] the first feed where nil
      # @return [Hash] card, said
      def self.try(show, words, feed_id)
        lane = show.lanes[feed_id] || show.lanes.values.first
        kinds = show.wardrobe.contents.badges.keys.select { |id, _| id == lane&.id }.map(&:last).first(2)
        said = Core::Said.new(TRIED.first, nil, TRIED.last, kinds, words, false, false)
        line = Core::Chat::Line.from(Core::Intake.new(:line, lane&.id, nil, nil, show.now_ms, said), id: 1, emotes: show.wardrobe.emotes)
        mark = lane ? lane.mark : %w[ring #f3b634]
        {card: Live::LineCard.of(line, TRIED.last, mark, show.wardrobe), said: winners(show.wardrobe.emotes, line, lane)}
      end

      # @return [Array<String>] which shelf won where several have a code of this line
      def self.winners(index, line, lane)
        line.fragments.select { |kind, *| kind == :emote }.uniq { |_, text| text }.filter_map do |_, text, emote|
          contenders = emote.is_a?(String) ? [] : index.contenders(emote.code, lane&.id)
          next if contenders.size < 2

          "“#{text}” is on #{contenders.size} shelves; #{contenders.first.shelf.name} wins because it stands first."
        end
      end
      private_class_method :winners

      # @param show [Live::Show]
      def initialize(site, show, show_id)
        @site = site
        @show = show
        @show_id = show_id
      end

      # @return [Hash]
      def whole
        feeds, index = @show.ask do |show|
          [show.lanes.values.map do |lane|
            {id: lane.id, name: lane.feed.name, mark: lane.mark}
          end, show.wardrobe.emotes]
        end
        clashes = index.clashes.to_h { |code, contenders| [code, contenders.first.shelf.id] }
        {feeds:, shelves: @site.stores.dress.shelves(@show_id).map { |kept| shelf(kept, clashes) }, phrases: phrases, badges: badges}
      end

      private

      def shelf(kept, clashes)
        shelf = kept.shelf
        {id: shelf.id, name: shelf.name, on: shelf.on, off_feeds: shelf.off_feeds, feed: shelf.feed_id, address: kept.address, said: kept.said,
         count: shelf.emotes.size, unused: shelf.emotes.count { |emote| kept.used[emote.id].zero? },
         emotes: shelf.emotes.first(MOST_EMOTES_SHOWN).map do |emote|
           emote(emote, kept.used[emote.id], beaten: clashes.fetch(emote.code, shelf.id) != shelf.id && shelf.feed_id.nil?)
         end}
      end

      def emote(emote, used, beaten:)
        {id: emote.id, code: emote.code, picture: emote.picture, overlay: emote.overlay, any_case: emote.any_case, moves: emote.animated, used:,
         beaten:}
      end

      def phrases
        @site.stores.dress.phrases(@show_id).map { |phrase| {id: phrase.id, words: phrase.words, picture: phrase.emote.picture} }
      end

      # @return [Array<Hash>] a row for each kind, with a cell for each feed that sends it
      def badges
        settings = @site.stores.dress.badges(@show_id)
        order = Core::Dress::Badge::KNOWN.keys
        kinds = settings.map(&:kind).uniq.sort_by { |kind| [order.index(kind) || order.size, kind] }
        kinds.map do |kind|
          letter, colour = Core::Dress::Badge.drawn(kind)
          {kind:, name: Core::Dress::Badge.name_of(kind), letter:, colour:, feeds: settings.select { |one| one.kind == kind }.to_h { |one| [one.feed_id, cell(one)] }}
        end
      end

      def cell(setting)
        {shown: setting.shown, ours: setting.ours, theirs: setting.theirs && @site.pictures.at(setting.theirs, @show_id)}
      end
    end
  end
end
