# frozen_string_literal: true

require_relative "../../core/dress/badge"
require_relative "../../core/dress/emote_index"

module Bavard
  module Live
    # What the lines of one show wear: the emotes of its shelves, its badges, and pictures by address. Belongs to its
    # show's thread.
    class Wardrobe
      # What is loaded from the store, in whichever thread.
      #
      # index:: Core::Dress::EmoteIndex; badges:: by feed and kind
      Contents = Struct.new(:shelves, :phrases, :index, :badges)
      # A badge as a page draws it: picture is its id or nil, then a letter on a colour.
      Worn = Struct.new(:kind, :words, :picture, :letter, :colour)
      NONE = [].freeze
      FLUSH_EVERY_MS = 5000
      MOST_BADGES = 6
      # However many a platform invents.
      MOST_KINDS = 400
      MOST_PLATFORM_EMOTES = 4000
      MOST_WORN = 5000
      # Emotes of platforms whose pictures have not come yet.
      MOST_EXPECTED = 2000

      # @param store [Store::Dress]
      # @return [Contents]
      def self.load(store, show_id)
        shelves = store.shelves(show_id).map(&:shelf)
        phrases = store.phrases(show_id)
        Contents.new(shelves, phrases, Core::Dress::EmoteIndex.new(shelves, phrases),
          store.badges(show_id).to_h { |badge| [[badge.feed_id, badge.kind], badge] })
      end

      attr_reader :contents

      # @param store [Store::Dress]
      # @param pictures [PictureDesk]
      # @param journal [Journal] by which is kept what was worn, and what of it is new
      def initialize(show_id, store, pictures, journal)
        @show_id = show_id
        @store = store
        @pictures = pictures
        @journal = journal
        @uses = Hash.new(0)
        @platform_emotes = {}
        @expected = {}
        @flushed_at_ms = 0
        self.contents = Wardrobe.load(store, show_id)
      end

      def contents=(contents)
        @contents = contents
        @worn = {}
        @platforms_off = contents.shelves.select { |shelf| shelf.feed_id && !shelf.on }.to_h { |shelf| [shelf.feed_id, true] }
        contents.shelves.each { |shelf| shelf.emotes.each { |emote| @platform_emotes[[shelf.feed_id, emote.code]] = true } if shelf.feed_id }
        @theirs = theirs(contents.shelves.select(&:on))
        @shelf_of = contents.shelves.each_with_object({}) { |shelf, of| shelf.emotes.each { |emote| of[emote.id] ||= shelf.id } }
      end

      # @return [Core::Dress::EmoteIndex]
      def emotes = contents.index

      # @return [Integer] emotes on the host's shelves that are worn
      def size = contents.shelves.select(&:looked_for?).sum { |shelf| shelf.emotes.size }

      # @return [Array<Core::Dress::Emote>] all that may fly: those of the host's shelves, and what platforms have sent so far
      def flown = contents.shelves.select(&:looked_for?).flat_map(&:emotes).reject(&:overlay) + @theirs.values

      # @param code [String]
      # @return [Core::Dress::Emote, nil] of the host's shelves, or of a platform
      def called(code) = emotes.contenders(code).first&.emote || @theirs[code]

      # @param address [String, nil]
      # @return [String, nil] the picture's id, if it is there
      def picture(address) = address && @pictures.at(address, @show_id)

      # @param picture [Core::Pictured] that a feed was handed itself
      def bring(picture) = @pictures.bring(picture.address, picture.bytes, @show_id)

      # @param address [String] of an emote the platform sent along
      # @return [String, nil] its picture's id, unless the shelf of that platform's own is off
      def platform_picture(feed_id, address)
        picture(address) unless @platforms_off[feed_id]
      end

      # @param emote [Core::Dress::Emote, String] or the address of a platform's own
      # @return [Integer, nil] the id of its shelf
      def shelf_of(feed_id, emote)
        emote.is_a?(String) ? contents.shelves.find { |shelf| shelf.feed_id == feed_id }&.id : @shelf_of[emote.id]
      end

      # @param line [Core::Chat::Line]
      # @return [Array<Worn>]
      def badges(line)
        badges = badges_of(line)
        badges.empty? ? NONE : badges.first(MOST_BADGES).filter_map { |badge| worn(line, badge) }
      end

      # @param address [String]
      # @return [Boolean] whether a line is drawn otherwise once there is a picture at it
      def wears?(line, address)
        line.addresses.include?(address) || badges_of(line).any? { |badge| setting_of(line.feed_id, badge)&.theirs == address }
      end

      # Counts what a line wears, and takes note of what nobody has seen before.
      def count(line)
        line.fragments.each do |_, text, emote|
          next if emote.nil?

          emote.is_a?(String) ? note_platform_emote(line.feed_id, text, emote) : (@uses[emote.id] += 1 if emote.id)
        end
        badges_of(line).each { |badge| note_badge(line, badge) }
      end

      # Which kinds of badges a platform has, so that they can be set before anybody wears them. Their pictures are fetched.
      #
      # @param kinds [Hash{String => String, nil}] with the addresses of their pictures
      def expect_badges(feed_id, kinds)
        kinds.each do |text, theirs|
          note_kind(feed_id, Core::Dress::Badge.read(text).kind, theirs)
          picture(theirs)
        end
      end

      # The picture at an address is there now.
      def picture_came(address)
        feed_id, code = @expected.delete(address)
        note_platform_emote(feed_id, code, address) if code
      end

      # Keeps what was counted, now and then.
      def flush(now_ms)
        return if @uses.empty? || now_ms - @flushed_at_ms < FLUSH_EVERY_MS

        @flushed_at_ms = now_ms
        counts = @uses
        @uses = Hash.new(0)
        @journal.later { @store.count_uses(counts, now_ms) }
      end

      private

      def badges_of(line) = line.first_time ? [*line.person.badges, Core::Dress::Badge::FIRST] : line.person.badges

      def setting_of(feed_id, badge) = contents.badges[[feed_id, Core::Dress::Badge.read(badge).kind]]

      def worn(line, text)
        address = line.person.badge_pictures&.[](text)
        key = [line.feed_id, text, address]
        known = @worn[key]
        return known || nil unless known.nil?

        @worn.clear if @worn.size > MOST_WORN
        setting = setting_of(line.feed_id, text)
        if setting && !setting.shown
          @worn[key] = false
          return
        end

        draw(Core::Dress::Badge.read(text), setting, address || setting&.theirs).tap { |made, there| @worn[key] = made if there }.first
      end

      # @return [Array(Worn, Boolean)] the badge, and whether it will stay like that
      def draw(badge, setting, theirs)
        picture = setting&.ours || picture(theirs)
        [Worn.new(badge.kind, badge.words, picture, *Core::Dress::Badge.drawn(badge.kind)), !picture.nil? || theirs.nil?]
      end

      def note_badge(line, text)
        note_kind(line.feed_id, Core::Dress::Badge.read(text).kind, line.person.badge_pictures&.[](text))
      end

      def note_kind(feed_id, kind, theirs)
        known = contents.badges[[feed_id, kind]]
        return if known ? theirs.nil? || known.theirs : contents.badges.size >= MOST_KINDS

        contents.badges[[feed_id, kind]] = Core::Dress::BadgeSetting.new(feed_id, kind, known ? known.shown : true, theirs, known&.ours)
        @journal.later { @store.badge_seen(feed_id, kind, theirs) }
      end

      # What platforms have sent, by its code.
      def theirs(shelves) = shelves.select(&:feed_id).flat_map(&:emotes).to_h { |emote| [emote.code, fresh(emote.code, emote.picture)] }
      def fresh(code, picture) = Core::Dress::Emote.new(nil, code, picture, false, false, false, 0)

      # The platform's own emotes make a shelf of their own, so that it is seen which there are: once their picture is there.
      def note_platform_emote(feed_id, code, address)
        return if @platform_emotes[[feed_id, code]] || @platform_emotes.size >= MOST_PLATFORM_EMOTES || code.match?(/\s/)

        picture = picture(address)
        return @expected[address] = [feed_id, code] if picture.nil? && @expected.size < MOST_EXPECTED
        return unless picture

        @platform_emotes[[feed_id, code]] = true
        @theirs[code] = fresh(code, picture) unless @platforms_off[feed_id]
        show_id = @show_id
        row = {"code" => code[0, Core::Dress::EmoteIndex::LONGEST_CODE], "picture" => picture}
        @journal.later { @store.put_platform_emote(show_id, feed_id, row) }
      end
    end
  end
end
