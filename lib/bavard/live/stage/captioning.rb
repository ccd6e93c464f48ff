# frozen_string_literal: true

require_relative "../../core/reading/captions"

module Bavard
  module Live
    # The captions of one stage: from files that run, and from what others post. Belongs to its show's thread.
    class Captioning
      KIND = "captions"
      # What waits to be shown is not more than so much.
      MOST_WAITING = 200
      # A caption that stands, or will.
      Standing = Struct.new(:id, :text, :from_ms, :to_ms)

      def initialize
        @standing = Hash.new { |all, piece_id| all[piece_id] = [] }
        @files = {}
        @coming_ms = {}
        @number = 0
      end

      # @param piece [Hash]
      # @param text [String] as it was posted
      def post(piece, text, now_ms)
        standing = @standing[piece["id"]]
        Core::Reading::Captions.cut(text).each do |words|
          from_ms = [now_ms + piece["delay_ms"], free_at(standing, piece)].max
          standing << Standing.new(@number += 1, words, from_ms, from_ms + Core::Reading::Captions.stays_ms(piece, words))
        end
        standing.shift while standing.size > MOST_WAITING
        @changed = true
      end

      # @param document [Hash]
      # @param live [LiveValues] that knows of files and how far they ran
      def advance(document, live, now_ms)
        pieces = document["pieces"].select { |piece| piece["kind"] == KIND }
        pieces.each { |piece| run_file(piece, live, now_ms) if piece["source"] == "file" }
        shown = pieces.to_h { |piece| [piece["id"], ids(piece["id"], now_ms)] }
        @changed = shown != @shown
        @shown = shown
      end

      def changed? = @changed || false

      # @return [Integer, nil] when something comes or goes
      def due_ms(now_ms)
        times = @standing.each_value.flat_map { |all| all.flat_map { |one| [one.from_ms, one.to_ms] } }
        (times + @coming_ms.values).compact.select { |ms| ms > now_ms }.min
      end

      # @return [Array<Array(Integer, String)>] what stands of a piece, the oldest first
      def report(piece, now_ms)
        @standing[piece["id"]].select { |one| one.from_ms <= now_ms && one.to_ms > now_ms }.last(piece["at_most"]).map { |one| [one.id, one.text] }
      end

      private

      # As many may stand at once as the piece has lines; the next waits until the oldest of them has been read.
      def free_at(standing, piece) = standing.last(piece["at_most"]).then { |last| last.size < piece["at_most"] ? 0 : last.map(&:to_ms).min }

      def ids(piece_id, now_ms)
        standing = @standing[piece_id]
        standing.reject! { |one| one.to_ms <= now_ms }
        standing.select { |one| one.from_ms <= now_ms }.map(&:id)
      end

      # What of the file stands at this moment of it; delayed as the piece has it.
      def run_file(piece, live, now_ms)
        id = piece["id"]
        ran_ms = live.ran_ms(id, now_ms) - piece["delay_ms"]
        captions = live.running?(id) ? file(id, live.text_of(id)) : []
        known = @standing[id]
        due = captions.select { |one| one.from_ms <= ran_ms && one.to_ms > ran_ms }
        @standing[id] = due.map { |one| known.find { |there| there.text == one.text } || standing(one, now_ms, now_ms - ran_ms) }
        coming = captions.find { |one| one.from_ms > ran_ms }
        @coming_ms[id] = coming && (now_ms + coming.from_ms - ran_ms)
      end

      def standing(caption, now_ms, began_ms) = Standing.new(@number += 1, caption.text, now_ms, began_ms + caption.to_ms)

      def file(piece_id, text)
        known_text, captions = @files[piece_id]
        return captions if known_text.equal?(text)

        @files[piece_id] = [text, Core::Reading::Captions.parse(text)]
        @files[piece_id].last
      end
    end
  end
end
