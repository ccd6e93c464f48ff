# frozen_string_literal: true

require "cgi/escape"
require "nokogiri"

module Bavard
  module Feeds
    module Xmpp
      # A piece of XML as streams carry it: plain data.
      class Element
        attr_reader :name, :namespace, :attributes, :children

        def initialize(name, namespace, attributes = {}, children = [])
          @name = name
          @namespace = namespace
          @attributes = attributes
          @children = children
        end

        def [](attribute) = attributes[attribute]
        def is?(name, namespace) = self.name == name && self.namespace == namespace

        # @param namespace [String, nil] nil: of any
        # @return [Element, nil]
        def child(name, namespace = nil)
          elements.find { |one| one.name == name && (namespace.nil? || one.namespace == namespace) }
        end

        def elements = children.grep(Element)
        # @return [String] the name of what went wrong, of one that says so
        def error_kind = child("error").then { |error| error ? error.elements.reject { |one| one.name == "text" }.first&.name.to_s : "" }

        def text = children.map { |one| one.is_a?(String) ? one : one.text }.join

        # Attribute values and texts are escaped, names are ours.
        #
        # @param inside [Array<String>] written already
        # @return [String] XML
        def self.written(name, attributes = {}, *inside)
          given = attributes.compact.map { |key, value| " #{key}='#{CGI.escapeHTML(value.to_s)}'" }.join
          inside.empty? ? "<#{name}#{given}/>" : "<#{name}#{given}>#{inside.join}</#{name}>"
        end

        # @return [String] as it may stand between two tags: what XML cannot hold is left out
        def self.escaped(text) = CGI.escapeHTML(text.gsub(/[^\t\n\r\u{20}-\u{D7FF}\u{E000}-\u{FFFD}\u{10000}-\u{10FFFF}]/, ""))
      end

      # What is no stream, or more than one may send.
      class Nonsense < StandardError
      end

      # Cuts a stream of XML into its stanzas (RFC 6120 §4), as its bytes come. What XMPP forbids in it (§11.1) ends it: comments, processing
      # instructions, document types and entities of one's own.
      #
      #   stream = Stream.new { |what| … }   # :closed, or an Element: the first is the stream's own
      #   stream.feed(bytes)
      class Stream
        LARGEST_BYTES = 512 * 1024
        DEEPEST = 30
        DECLARATION = /\A\s*<\?xml[^>]{0,100}\?>/
        FORBIDDEN = /<!(?!\[CDATA\[|\z|\[\z|\[C|\[CD|\[CDA|\[CDAT|\[CDATA)|<\?/
        BEGINS = "<?xml"
        # As long as what is forbidden may be cut in two.
        TAIL = 9

        # For Nokogiri.
        class Handler < Nokogiri::XML::SAX::Document
          def initialize(told)
            super()
            @told = told
            @open = []
          end

          def start_element_namespace(name, attributes, _prefix, uri, *)
            raise Nonsense, "it goes deeper than #{DEEPEST}" if @open.size >= DEEPEST

            given = attributes.to_h { |one| [one.prefix ? "#{one.prefix}:#{one.localname}" : one.localname, one.value] }
            @open << Element.new(name, uri, given)
            @told.call(@open.first) if @open.size == 1
          end

          def end_element_namespace(*)
            element = @open.pop
            case @open.size
            when 0 then @told.call(:closed)
            when 1 then @told.call(element)
            else @open.last.children << element
            end
          end

          def characters(text) = @open.size > 1 && (@open.last.children << text)
          alias cdata_block characters
        end

        def initialize(&told)
          @since = 0
          @seen = +"".b
          @first = true
          @parser = Nokogiri::XML::SAX::PushParser.new(Handler.new(lambda do |what|
            @since = 0
            yield(what)
          end))
        end

        # @param bytes [String]
        # @raise [Nonsense]
        def feed(bytes)
          @since += bytes.bytesize
          raise Nonsense, "a stanza of more than #{LARGEST_BYTES / 1024} KB" if @since > LARGEST_BYTES

          look_at(bytes)
          @parser << bytes
        rescue Nokogiri::XML::SyntaxError => error
          raise Nonsense, "it is no XML: #{error.message.lines.first.to_s.strip[0, 100]}"
        end

        private

        def look_at(bytes)
          @seen << bytes.b
          return if @first && declaring?

          @seen.sub!(DECLARATION, "") if @first
          @first = false
          raise Nonsense, "it holds what no stream may" if @seen.match?(FORBIDDEN)

          @seen = @seen.byteslice(-TAIL, TAIL) || @seen
        end

        # @return [Boolean] whether it is still saying that it is XML
        def declaring? = @seen.bytesize < BEGINS.bytesize ? BEGINS.start_with?(@seen) : @seen.start_with?(BEGINS) && !@seen.include?("?>")
      end
    end
  end
end
