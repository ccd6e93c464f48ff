# frozen_string_literal: true

require_relative "../../standins/hidewire/conversation"

# The conversations whose truth is known, as they would be heard in rooms that are not quiet: what was said, with noise of a given spread
# beside it, keys that are struck, music, a fan that is switched on. The same each time for the same seed.
module NoisyRooms
  FOLDER = File.expand_path("../../demo/conversations", __dir__)
  EVERY_MS = 20
  # Whoever says too little to be judged by.
  LEAST_SAID_MS = 4000
  CLICKS_IN_MS = 180_000
  # levels:: [at_ms, dbov]; truth:: [from_ms, to_ms] of each stretch of talking
  Room = Struct.new(:levels, :truth) do
    def length_ms = levels.last[0]
  end

  module_function

  # @return [Array<Array(Hash{Integer => Float}, Array, Integer)>] of each person their levels, when they talk, and how long it goes on
  def voices
    @voices ||= Hidewire::Conversation.all(FOLDER).values.flat_map do |conversation|
      levels = Hash.new { |all, person| all[person] = {} }
      conversation.each { |one| levels[one.person][one.at_ms] = -one.level.abs.to_f }
      conversation.truth.select { |_, all| all.sum { |from, to| to - from } >= LEAST_SAID_MS }.map { |person, all| [levels[person], all, conversation.length_ms] }
    end
  end

  # @param floor [Numeric, #call] dBov of the noise, or what gives it by the time
  # @param spread [Numeric] its standard deviation, dB
  # @param clicks [Integer] in three minutes
  # @param music [Numeric, nil] dBov
  # @return [Room]
  def room(voice, seed, floor:, spread:, clicks: 0, music: nil)
    own, truth, length_ms = voice
    random = Random.new(seed)
    struck = struck(clicks, length_ms, random)
    levels = (0...length_ms).step(EVERY_MS).map do |at_ms|
      heard = [(floor.respond_to?(:call) ? floor.call(at_ms) : floor) + (spread * gauss(random)), struck[at_ms], own[at_ms]]
      heard << (music + (4 * Math.sin(at_ms / 83.0)) + (2 * gauss(random))) if music
      [at_ms, together(heard.compact)]
    end
    Room.new(levels, truth)
  end

  # @return [Hash{Integer => Float}] keys that are struck, each of one to three levels
  def struck(clicks, length_ms, random)
    Array.new(clicks * length_ms / CLICKS_IN_MS) { random.rand(length_ms / EVERY_MS) * EVERY_MS }.each_with_object({}) do |at_ms, all|
      random.rand(1..3).times { |step| all[at_ms + (step * EVERY_MS)] = -random.rand(16.0..32.0) }
    end
  end

  def gauss(random) = Math.sqrt(-2 * Math.log(1 - random.rand)) * Math.cos(2 * Math::PI * random.rand)

  # Powers add up.
  def together(levels) = (10 * Math.log10(levels.sum { |dbov| 10**(dbov / 10.0) })).clamp(-127.0, 0.0)
end
