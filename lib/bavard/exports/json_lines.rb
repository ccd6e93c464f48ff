# frozen_string_literal: true

require "json"
require_relative "document"

module Bavard
  module Exports
    # One document a line, with everything that is known (https://jsonlines.org).
    class JsonLines
      NAME = "log.jsonl"
      TYPE = "application/jsonl"

      def initialize(feeds) = @feeds = feeds
      def head = ""
      def foot = ""
      def entry(entry) = "#{JSON.generate(Document.of(entry, @feeds))}\n"
    end
  end
end
