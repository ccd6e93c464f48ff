# frozen_string_literal: true

require_relative "../../copies/reading"
require_relative "../../core/reading/captions"
require_relative "../../feeds/described/bench/frames"
require_relative "../../live/stage/now_files"
require_relative "../../live/rehearsal/playback"
require_relative "../stations/files/brought_files"
require_relative "../stations/dress/shelf_upload"

module Bavard
  module Web
    # How much a request may bring, by where it goes to: known before any of it is taken.
    module Bodies
      USUAL_BYTES = 64 * 1024
      # Besides a file: the form around it.
      FORM_BYTES = 256 * 1024
      PICTURES_BYTES = 64 * 1024 * 1024
      CUE_PICTURE_BYTES = 49 * 1024 * 1024
      # Lists of words are long.
      RULES_BYTES = 4 * 1024 * 1024
      # A description with what a platform sent.
      DESCRIBED_BYTES = Feeds::Described::Bench::Frames::LARGEST_BYTES + FORM_BYTES
      # A stage's edits: pieces with looks and CSS of their own.
      EDITS_BYTES = 256 * 1024
      BROUGHT_BYTES = BroughtFiles::LARGEST_BYTES + FORM_BYTES

      # The first that fits counts. Patterns are read by the pages' scripts as well.
      BY_PLACE = {
        %r{\A/stage/[0-9]+/play\z} => Live::Playback::LARGEST_BYTES + FORM_BYTES,
        %r{\A/stage/[0-9]+/copy-in(/tell)?\z} => Copies::Reading::LARGEST_BYTES + FORM_BYTES,
        %r{\A/stage/[0-9]+/pieces/[a-z0-9_]+/live\z} => Core::Reading::Captions::LONGEST_FILE + FORM_BYTES,
        %r{\A/stage/[0-9]+/files\z} => BROUGHT_BYTES,
        %r{\A/stage/} => EDITS_BYTES,
        %r{\A/gate/} => RULES_BYTES,
        %r{\A/feeds/describe/} => DESCRIBED_BYTES,
        %r{\A/now/} => Live::NowFiles::LARGEST_BYTES,
        %r{\A/dress/files/bring\z} => BROUGHT_BYTES,
        %r{\A/dress/fellows/[0-9]+/(picture|clips)\z} => BROUGHT_BYTES,
        %r{\A/dress/cast/(drop\z|.*pictures/)} => PICTURES_BYTES,
        %r{\A/dress/cues/cues/[^/]+/picture\z} => CUE_PICTURE_BYTES,
        %r{\A/dress/cues/cues/[^/]+/files\z} => BROUGHT_BYTES,
        %r{\A/dress/(shelves/upload\z|badges/)} => ShelfUpload::LARGEST_BYTES
      }.freeze

      module_function

      # @param path [String] such as "/gate/keep"
      # @return [Integer] bytes
      def most(path)
        path = path.to_s.scrub("?")[0, 400]
        BY_PLACE.each { |place, bytes| return bytes if place.match?(path) }
        USUAL_BYTES
      end

      # @return [Array<Array(String, Integer)>] the same for a page's scripts
      def limits = BY_PLACE.map { |place, bytes| [place.source.gsub("\\A", "^").gsub("\\z", "$"), bytes] }
    end
  end
end
