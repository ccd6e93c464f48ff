# frozen_string_literal: true

require "addressable/idna"
require "public_suffix"
require_relative "../code_points"
require_relative "covered"
require_relative "words/places"
require_relative "words/fold"

module Bavard
  module Core
    module Gate
      # Hosts named in a text, openly or so that no program would take them for one.
      module Hosts
        # written:: as it stands in the text, with its path; ascii:: as the net knows it (RFC 3492); shown:: as people read it
        # hidden:: whether it was written to avoid being one; from, to:: in code points
        Host = Struct.new(:written, :ascii, :shown, :hidden, :from, :to)

        LABEL = "[\\p{L}\\p{N}](?:[\\p{L}\\p{M}\\p{N}-]{0,61}[\\p{L}\\p{M}\\p{N}])?"
        PATH = "(?::\\d{1,5})?(?:[/?#][^\\s<>\"]{0,2000})?"
        OPEN = %r{(?<![\p{L}\p{M}\p{N}@._-])(?:[A-Za-z][A-Za-z0-9+-]{1,12}://)?((?:#{LABEL}[.。．｡]){1,8}#{LABEL})\.?#{PATH}}
        BARE = /(?<![\p{L}\p{M}\p{N}@._-])((?:#{LABEL}[.。．｡]){1,8}#{LABEL})\.?#{PATH}/
        DOTTED = /(?<![^\s<>"])[^\s<>"]*[^\s<>"][.。．｡][^\s<>"]+/
        NUMBERS = %r{(?<![\w.])(?:https?://)?(\d{1,3}(?:\.\d{1,3}){3})(?::\d{1,5}|/)\S{0,2000}}i
        SCHEME = %r{(?<![a-z])(?:h(?:tt|xx|\*\*)ps?|ftp)\s?:\s?/\s?/\s?[^\s/]+}i
        # A dot that is spelled out or set apart.
        DOT = "(?:\\s*[(\\[{<]\\s*(?:dot|\\.|punkt|point|punto|ponto)\\s*[)\\]}>]\\s*|" \
              "\\s+(?:dot|punkt|punto|ponto)\\s+|\\s+\\.\\s?|\\.\\s+|\\s*,\\s*)"
        NAME = "[a-z0-9][a-z0-9-]{1,62}"
        HIDDEN = %r{(?<![\p{L}\p{N}@._-])(#{NAME}(?:(?:#{DOT}|\.)#{NAME}){0,4}#{DOT}([a-z]{2,18}))(?![\p{L}\p{N}])(?:\s?/\s?\S{1,200})?}
        SPACED = /(?<![\p{L}\p{N}])(www[\s.,]+#{NAME}[\s.,]+[a-z]{2,18})(?![\p{L}\p{N}])/
        # What must be there for a closer look at it to find something.
        FOUR_NUMBERS = /\d\.\d/
        DOTS = /[(\[{<,]|\s\.|\.\s|\s(?:dot|punkt|punto|ponto)\s/
        # One of these is in whatever names a host.
        SIGNS_OF_ONE = ["://", "(dot", "[dot", "{dot", "( dot", "[ dot", ",com", ",net", ",org"].freeze
        WORDS_OF_ONE = [" dot ", "punkt", "punto", "ponto", "point", "www"].freeze
        SIGN = /[.:(\[{,]/
        MOST_REMEMBERED = 5000
        # Ends of hosts that are kept for examples (RFC 2606, RFC 6761) count as any other.
        RESERVED = %w[example test invalid localhost local onion].freeze
        # Ends that are short words of many languages: not enough by themselves, where the dot is only a full stop.
        WORDS = %w[in is it at to so no me my be by do am as us we la de et es id or an the and].to_h { |word| [word, true] }.freeze
        # What hides behind a comma or a full stop with a space needs an end that hardly is a word.
        CERTAIN = %w[com net org example info online site xyz shop gg tv io co uk ru dev app link].to_h { |ending| [ending, true] }.freeze

        module_function

        # @param folded [String]
        # @return [Boolean] whether there may be one
        def maybe?(folded)
          return true if folded.include?(".") || WORDS_OF_ONE.any? { |word| folded.include?(word) }

          folded.match?(SIGN) && (SIGNS_OF_ONE.any? { |sign| folded.include?(sign) } || folded.match?(SCHEME))
        end

        # @param text [String]
        # @param folded [String] Fold.text(text)
        # @return [Array<Host>] from left to right
        def in(text, folded, hidden: true)
          open = openly(text)
          return open unless hidden

          open + hidden(text, folded, open)
        end

        # @param given [String] as a host writes it in a list: "https://www.reedmere.example/"
        # @return [String] "reedmere.example"
        def plain(given)
          ascii(given.strip.downcase.sub(%r{\A[a-z][a-z0-9+.-]*://}, "").sub(%r{[/?#:].*\z}m, "").delete_prefix("*.").delete_prefix("www."))
        end

        # @return [String] the same for hosts that look the same
        def looks(host) = Words::Fold.text(host).tr("il1|0", "llllo").gsub("rn", "m")

        # @return [Boolean] whether a host can end like that
        def ending?(label)
          @endings = {} if @endings.nil? || @endings.size > MOST_REMEMBERED
          @endings.fetch(label) { @endings[label] = known_ending?(ascii(label.downcase)) }
        end

        def known_ending?(label) = RESERVED.include?(label) || !PublicSuffix::List.default.find(label, default: nil).nil?

        def openly(text)
          found = open_places(text).filter_map do |from, to, host, written|
            plain_end = host.split(/[.。．｡]/).last
            next unless ending?(plain_end) && believable?(written, host, plain_end)

            ascii = ascii(host.tr("。．｡", "...").downcase)
            Host.new(written, ascii, shown(ascii), false, from, to)
          end
          return found unless text.match?(FOUR_NUMBERS)

          found + Places.of(text, NUMBERS).map { |place| Host.new(place.match, place.part, place.part, false, place.from, place.to) }
        end

        # "the end.In" is two sentences; "reedmere.in" may be one word.
        def believable?(written, host, ending)
          return true if written.match?(%r{://|[/:?#]}) || written.start_with?("www.")
          return false if ending.match?(/\A[A-Z]/) && !ending.match?(/\A[A-Z]+\z/)

          !WORDS[ending.downcase] || host.count(".") > 1
        end

        # What the readings of the text name without naming it openly.
        def hidden(text, folded, open)
          found = maybe_hidden(folded, text.ascii_only?)
          return [] if found.empty?

          readings, map = Words::Fold.mapped(text)
          return [] unless readings == folded

          letters = CodePoints.of(text)
          covered = Covered.new(open)
          found.filter_map { |pattern, from, to, host| hidden_one(pattern, letters, map[from], map[to - 1] + 1, host) }
            .reject { |one| covered.any?(one.from, one.to) }.uniq(&:from)
        end

        # @return [Array<Array(Regexp, Integer, Integer, String)>] pattern, where it begins and ends, and what names the host
        def maybe_hidden(folded, plain)
          found = hiding(folded).flat_map do |pattern|
            Places.of(folded, pattern).map { |place| [pattern, place.from, place.to, place.part || place.match] }
          end
          # What is open already in plain letters hides nothing.
          plain ? found : found + open_places(folded).map { |from, to, host, _| [OPEN, from, to, host] }
        end

        # @return [Array<Regexp>] those that have what they need
        def hiding(folded)
          [(HIDDEN if folded.match?(DOTS)), (SPACED if folded.include?("www")), (SCHEME if folded.include?(":"))].compact
        end

        def hidden_one(pattern, letters, from, to, host)
          written = letters.part(from, to - from)
          return Host.new(written, host, host, true, from, to) if pattern.equal?(SCHEME)

          ending = host[/(?<![a-z])[a-z]+\z/]
          return unless ending && ending?(ending)
          return if pattern.equal?(OPEN) && !believable?(written, host, ending)
          return if pattern.equal?(HIDDEN) && !CERTAIN[ending] && !host.match?(/[(\[{<]/)

          Host.new(written, host.gsub(/\s+/, ""), host, true, from, to)
        end

        def ascii(host)
          return host if host.ascii_only?

          Addressable::IDNA.to_ascii(host)
        rescue StandardError # a label that is none
          host
        end

        def shown(ascii)
          ascii.include?("xn--") ? Addressable::IDNA.to_unicode(ascii) : ascii
        rescue StandardError
          ascii
        end

        # A host has a dot in it: only words that have one are looked at closely.
        #
        # @return [Array<Array(Integer, Integer, String, String)>] where each begins and ends, the host in it, and all that stands there
        def open_places(text)
          Places.of(text, DOTTED).flat_map do |place|
            word = place.match
            Places.of(word, word.include?("://") ? OPEN : BARE).map { |one| [place.from + one.from, place.from + one.to, one.part, one.match] }
          end
        end

        private_class_method :known_ending?, :openly, :believable?, :hidden, :maybe_hidden, :hiding, :hidden_one, :ascii, :shown, :open_places
      end
    end
  end
end
