# frozen_string_literal: true

require_relative "activity_streams"
require_relative "csv"
require_relative "json_lines"
require_relative "web_vtt"

module Bavard
  # The log in open formats. Each has a head, a way to write an entry, and a foot.
  module Exports
    FORMATS = {"csv" => Csv, "jsonl" => JsonLines, "activities" => ActivityStreams, "vtt" => WebVtt}.freeze
  end
end
