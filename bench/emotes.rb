# frozen_string_literal: true

require_relative "../lib/bavard/core/chat/fragments"
require_relative "../lib/bavard/core/dress/emote_index"
require_relative "cpu"
require_relative "steal"

module Bench
  # Lines cut into fragments with the codes of 20 shelves: 50 000 of them against 100, on one core; beside it the floor,
  # a bare split and look-up of the same words.
  class Emotes
    include Cpu

    SHELVES = 20
    FEW = 100
    MANY = 50_000
    RUNS = 40
    LINES = 2000
    # One in five has an emote in it.
    TEXTS = ["morning all who is on the boardwalk today?", "@Odalys can we see the wing again please", "that is a second-year bird, look at the iris",
      "the mist coming off the water is unreal :code7x3:", "ring number looks like K41 207"].freeze

    def run
      @few = index(FEW)
      @many = index(MANY)
      least, steal = Steal.around { measure }
      {lines_per_s: (LINES / least[:many]).round, few_lines_per_s: (LINES / least[:few]).round, bare_lines_per_s: (LINES / least[:bare]).round,
       ratio_to_few: (least[:many] / least[:few]).round(2), steal_percent: steal.round(1)}
    end

    private

    # @return [Hash{Symbol => Float}] the least time of each
    def measure
      words = @many.instance_variable_get(:@exact)
      ways = {few: -> { cut(@few) }, many: -> { cut(@many) }, bare: -> { bare(words) }}
      least = ways.transform_values { Float::INFINITY }
      RUNS.times { ways.each { |name, way| least[name] = [least[name], cpu { way.call }].min } }
      least
    end

    def index(count)
      shelves = (0...SHELVES).map do |shelf|
        emotes = (0...(count / SHELVES)).map { |number| Bavard::Core::Dress::Emote.new(number, ":code#{shelf}x#{number}:", "p", false, false, false, 1.0) }
        Bavard::Core::Dress::Shelf.new(shelf, "Shelf #{shelf}", true, [], emotes, nil)
      end
      Bavard::Core::Dress::EmoteIndex.new(shelves)
    end

    def cut(index)
      found = 0
      LINES.times { |number| found += Bavard::Core::Chat::Fragments.cut(TEXTS[number % TEXTS.size], emotes: index, feed_id: 1).count { |kind, _| kind == :emote } }
      raise "#{found} emotes were found in place of #{LINES / TEXTS.size}" unless found == LINES / TEXTS.size
    end

    def bare(words)
      LINES.times { |number| TEXTS[number % TEXTS.size].split.each { |word| words[word] } }
    end
  end
end
