# frozen_string_literal: true

require "zlib"

module StandIns
  # The emotes of the made-up platforms: which words they are, and where they stand in a text.
  module Emotes
    FOLDER = File.expand_path("../../demo/pictures/emotes", __dir__)
    NAMES = %w[owl egg nestbox heron puffin goose].freeze
    CODE = /:(#{NAMES.join("|")}):/
    AVATARS = %w[reed mere sky clay moss].freeze

    module_function

    # @return [Array<Array(Integer, Integer, String)>] offset, length and name
    def in_code_points(text)
      found = []
      text.scan(CODE) { found << [Regexp.last_match.begin(0), Regexp.last_match[0].length, Regexp.last_match[1]] }
      found
    end

    def in_utf16(text)
      in_code_points(text).map { |at, length, name| [text[0, at].encode("UTF-16LE").bytesize / 2, length, name] }
    end

    def in_bytes(text)
      in_code_points(text).map { |at, length, name| [text[0, at].bytesize, length, name] }
    end

    def avatar(login) = AVATARS[Zlib.crc32(login) % AVATARS.size]

    # Those that move are files of another kind.
    def ending(name) = File.exist?(File.join(FOLDER, "#{name}.webp")) ? "webp" : "svg"
  end
end
