# frozen_string_literal: true

require_relative "../../core/intake"
require_relative "emotes"
require_relative "values"
require_relative "voices"

module Bavard
  module Feeds
    module Described
      # What one kind of thing that a platform sends is in Bavard's terms: when it is that, and where its fields stand.
      class Rule
        ABOUT = {
          "id" => Values::Id, "time" => Values::Time, "login" => Values::Name, "name" => Values::Name, "text" => Values::Text,
          "colour" => Values::Colour, "avatar" => Values::Address, "first" => Values::Flag, "action" => Values::Flag, "paid" => Values::Paid,
          "number" => Values::Whole
        }.freeze
        REPLY = {"id" => Values::Id, "name" => Values::Name, "text" => Values::Text}.freeze
        TOTALS = Core::TOTALS.to_h { |counted| [counted, Values::Whole] }.freeze
        PROFILE = {"login" => Values::Name, "name" => Values::Name, "words" => Values::Text, "last_shown" => Values::Text,
                   "followers" => Values::Whole, "avatar" => Values::Address}.freeze
        FIELDS = {"totals" => TOTALS, "profile" => PROFILE, "room" => Voices::CARD, "card" => Voices::CARD}.freeze
        SPEAKS = [*ABOUT.keys, "reply", "roles", "badges", "emotes", "history"].freeze
        # What it may be, with the fields that each has.
        KINDS = {
          "line" => SPEAKS, **Core::EVENTS.to_h { |what| [what.to_s, SPEAKS] },
          "edit" => %w[id time login text emotes],
          "delete" => %w[id time], "silence" => %w[login time], "clear" => %w[time], "totals" => TOTALS.keys, "profile" => PROFILE.keys,
          "begun" => [], "ended" => [], "nothing" => [],
          "room" => [*Voices::CARD.keys, "people"], "card" => Voices::CARD.keys, "levels" => %w[levels],
          **%w[enter change leave].to_h { |what| [what, %w[people]] }
        }.freeze
        # Those that are read of every line.
        OF_LINES = %w[login name colour text action history first paid avatar].freeze
        NEEDS = {"line" => %w[login], "edit" => %w[id text], "delete" => %w[id], "silence" => %w[login], "profile" => %w[login],
                 "room" => %w[key people], "levels" => %w[levels], **%w[enter change leave].to_h { |what| [what, %w[people]] },
                 **Core::EVENTS.to_h { |what| [what.to_s, %w[login]] }}.freeze
        # What viewers write: nothing that counts is taken from there.
        CLAIMS = %w[text name].freeze
        COUNTS = %w[paid number first].freeze
        NONE = [].freeze
        NO_BADGES = [NONE, nil].freeze

        # A platform that says in one word what something is may name them all at once: {"is": {"at": "kind", "as": {"cheer": "tip"}}, …} are
        # as many rules, alike but for that.
        #
        # @param given [Hash]
        # @return [Array<Hash>] each for one kind
        # @raise [ArgumentError]
        def self.each_kind(given)
          return [given] unless given["is"].is_a?(Hash)

          at, as = given["is"].values_at("at", "as")
          raise ArgumentError, "say where the word stands “at”, and what each counts “as”" unless given["is"].keys.sort == %w[as
            at] && as.is_a?(Hash) && !as.empty?
          raise ArgumentError, "a “when” is one too many here" if given.key?("when")
          raise ArgumentError, "a word has no quotes in it" if as.keys.any? { |word| word.match?(/['\\]/) }

          as.map { |word, kind| given.merge("is" => kind, "when" => "#{Path.read(at).text} == '#{word}'") }
        end

        # @return [Integer] which one of the description it is
        attr_reader :place
        attr_reader :is, :condition

        # @param given [Hash]
        # @param place [Integer] which one of the description it is
        # @yieldparam field [String] in which something is wrong
        # @yieldparam words [String]
        def initialize(given, place = 0, &problem)
          @place = place
          @is = given["is"]
          @problem = problem
          @values = {}
          KINDS.key?(@is) ? read_fields(given) : yield("is", "“is” is one of #{KINDS.keys.join(", ")}")
        end

        # Of a line or event.
        #
        # @return [Core::Said, nil] nil where nobody said it
        def said(item, history)
          login = @login&.of(item) or return
          badges, pictures = worn(item)
          text, placed = words(item)
          Core::Said.new(login, @name&.of(item), @colour&.of(item), badges, text, @action&.of(item) || false,
            history || @history&.of(item) || false, placed, reply(item), @first&.of(item) || false, @paid&.of(item), @avatar&.of(item), pictures)
        end

        # Of a line that was changed.
        #
        # @return [Core::Edited]
        def edited(item)
          text, placed = words(item)
          Core::Edited.new(value("login", item), text, placed)
        end

        def value(name, item) = @values[name]&.of(item)

        # @return [Hash{String => Integer}]
        def totals(item) = Core::TOTALS.to_h { |counted| [counted, value(counted, item)] }.compact

        # @return [Core::Profile, nil]
        def profile(item)
          login = value("login", item) or return
          Core::Profile.new(login:, name: value("name", item), words: value("words", item)&.slice(0, 300),
            last_shown: value("last_shown", item)&.slice(0, 120), followers: value("followers", item), avatar: value("avatar", item))
        end

        # What happened in a voice room.
        #
        # @return [Core::Voice::Happening, nil] nil where nobody can be told
        def happening(item)
          people = @people&.of(item)
          levels = @levels&.of(item)
          card = card(item) if %w[room card].include?(@is)
          told = {"room" => card&.key && people, "card" => card, "levels" => levels&.any?}.fetch(@is) { people&.any? }
          Core::Voice::Happening.new(Voices::KINDS.fetch(@is), card, people || NONE, levels) if told
        end

        # @return [Array<String>] each place that it reads, for whoever looks at what nothing reads
        def places
          [condition&.path, *@values.each_value.flat_map(&:paths), *@roles&.paths, *@badges&.paths, *@people&.paths, *@levels&.paths,
            *@reply&.each_value&.flat_map(&:paths)].compact.map(&:text)
        end

        private

        def read_fields(given)
          refuse_unknown(given, KINDS.fetch(@is))
          (NEEDS.fetch(@is, NONE) - given.keys).each { |name| @problem.call(name, "a #{@is} needs its #{name}") }
          given.each { |name, value| read(name, value) unless name == "is" }
          @login, @name, @colour, @text, @action, @history, @first, @paid, @avatar = @values.values_at(*OF_LINES)
          refuse_claims
        end

        def refuse_unknown(given, fields)
          (given.keys - fields - %w[is when]).each { |name| @problem.call(name, "a #{@is} has no “#{name}”") }
        end

        def read(name, value)
          case name
          when "when" then @condition = Condition.new(value)
          when "reply" then @reply = Values.several(REPLY, value)
          when "roles" then @roles = Roles.new(value)
          when "badges" then @badges = Badges.new(value)
          when "emotes" then @emotes = Emotes.read(value)
          when "people" then @people = Voices::People.new(value)
          when "levels" then @levels = Voices::Levels.new(value)
          when "history" then @values[name] = Values::Flag.new(value)
          else (kind = kind_of(name)) && @values[name] = kind.new(value)
          end
        rescue ArgumentError => error
          @problem.call(name, error.message)
        end

        def kind_of(name) = FIELDS.fetch(@is, ABOUT)[name]

        # @return [Core::Voice::Card, nil] nil where nothing is told of it
        def card(item)
          told = Voices::CARD.keys.map { |name| value(name, item) }
          Core::Voice::Card.new(*told).tap { |card| card.name ||= card.key } if told.any?
        end

        # A role or an amount that is read where a viewer writes is anybody's.
        def refuse_claims
          written = CLAIMS.filter_map { |name| @values[name]&.path }
          counted = COUNTS.flat_map { |name| (@values[name]&.paths || NONE).map { |path| [name, path] } }
          counted.concat([["roles", @roles], ["badges", @badges]].flat_map { |name, one| (one&.paths || NONE).map { |path| [name, path] } })
          counted.each do |name, path|
            @problem.call(name, "“#{path.text}” is what a viewer writes: it says nothing of what they are or gave") if written.any? do |claim|
              claim.meets?(path)
            end
          end
        end

        # @return [Array(Array<String>, Hash, nil)] badges, and pictures of some
        def worn(item)
          badges, pictures = @badges ? @badges.of(item) : NO_BADGES
          return [badges, pictures] unless @roles

          [(@roles.of(item) | badges).first(Given::MOST_BADGES), pictures]
        end

        def words(item)
          text = @text&.of(item) || ""
          @emotes ? @emotes.of(item, text) : [text, nil]
        end

        def reply(item)
          return unless @reply

          id, name, text = %w[id name text].map { |field| @reply[field]&.of(item) }
          Core::Reply.new(id, name, text&.slice(0, 500)) if id || name
        end
      end

      # Roles from a platform's own words: a list of them, a text, flags, or numbers; and what each of them is in Bavard's.
      #
      #   {"at": "author.rank", "as": {"mod": "moderator", "owner": "host"}}   or   [{"when": "author.is_mod", "is": "moderator"}, …]
      class Roles
        ROLE = /\A[a-z][a-z0-9_]{0,39}\z/
        MOST = 40
        # Words in a text that has several.
        BETWEEN = /[\s,;|]+/

        def initialize(given)
          given.is_a?(Array) ? flags(given) : table(given)
        end

        # @return [Array<String>]
        def of(item)
          return @flags.filter_map { |condition, role| role if condition.holds?(item) } if @flags

          worn(@path.of(item)).first(MOST).filter_map { |word| @as[word] }.uniq
        end

        def paths = @flags ? @flags.map { |condition, _| condition.path } : [@path]

        private

        def flags(given)
          @flags = given.first(MOST).map do |one|
            raise ArgumentError, "each of the roles says “when” and what it “is”" unless one.is_a?(Hash) && one.keys.sort == %w[is when]

            [Condition.new(one["when"]), role(one["is"])]
          end
        end

        def table(given)
          raise ArgumentError, "roles say where they stand “at”, and what each word counts “as”" unless given.is_a?(Hash) && given.keys.sort == %w[as
            at] && given["as"].is_a?(Hash)

          @path = Path.read(given["at"])
          @as = given["as"].to_h { |word, name| [word.to_s, role(name)] }
        end

        def role(name) = name.is_a?(String) && name.match?(ROLE) ? name : raise(ArgumentError, "“#{name}” cannot be a role")

        def worn(value)
          case value
          when Array then value.map { |one| one.is_a?(Hash) ? (one["name"] || one["id"]).to_s : one.to_s }
          when Hash then value.filter_map { |name, on| name if on }
          when String then value.split(BETWEEN)
          else [value.to_s]
          end
        end
      end

      # Badges as the platform calls them, with their pictures where it sends those: {"at": "badges", "name": "id", "picture": "url"}
      class Badges
        def initialize(given)
          given = {"at" => given} unless given.is_a?(Hash)
          unknown = given.keys - %w[at name detail picture pictures]
          raise ArgumentError, "there is no “#{unknown.first}” here" if unknown.any?

          @path = Path.read(given["at"])
          @name, @detail = %w[name detail].map { |field| given[field] && Values::Name.new(given[field]) }
          @picture = given["picture"] && Values::Address.new(given["picture"])
          @pictures = given["pictures"] && Path.read(given["pictures"])
        end

        # @return [Array(Array<String>, Hash{String => String})]
        def of(item)
          beside = @pictures ? Given.object(@pictures.of(item)) : nil
          all = Given.list(@path.of(item)).first(Given::MOST_BADGES).filter_map do |one|
            name = (@name ? @name.of(one) : Given.name(one)) or next
            detail = @detail&.of(one)
            [detail ? "#{name}/#{detail}" : name, @picture ? @picture.of(one) : Given.address(beside && beside[name])]
          end
          [all.map(&:first), all.select(&:last).to_h]
        end

        def paths = [@path]
      end
    end
  end
end
