# frozen_string_literal: true

require_relative "../hosts"
require_relative "../lists"
require_relative "../rule_kind"

module Bavard
  module Core
    module Gate
      # Addresses of sites: all but those the host lists.
      class Links < RuleKind
        KEY = "links"
        LABEL = "Links"
        ICON = "link"
        ABOUT = "Addresses of sites that are not on your list."
        ACTIONS = %i[drop mask hold].freeze
        EXCEPT = %w[host moderator].freeze
        MOST_SITES = 1000
        OWN = [
          Fields::Property.lines("sites", "sites that may be shown, one a line", 40_000),
          Fields::Property.switch("hidden", "also links written to avoid being one", true)
        ].freeze

        def look(sight, _memory)
          return unless Hosts.maybe?(sight.folded)

          all = Hosts.in(sight.text, sight.folded, hidden: settings["hidden"]).reject { |host| allowed?(host) }
          return if all.empty?

          all.map do |host|
            found(host.written, why(host), from: host.from, to: host.to,
              edits: @action == :mask ? [Edits.cover(sight.text, host.from, host.to)] : nil)
          end
        end

        def words
          return "None may be shown" if @sites.empty?

          "#{@sites.size == 1 ? "1 site" : "#{@sites.size} sites"} may be shown"
        end

        private

        def prepare
          @sites = Lists.lines(settings["sites"], most: MOST_SITES, field: "sites").map { |site| Hosts.plain(site) }.uniq
          @allowed = @sites.to_h { |site| [site, true] }
          @looks = @sites.to_h { |site| [Hosts.looks(site), site] }
        end

        # A site allows all below it, but for hosts that only look like it.
        def allowed?(host)
          return false if host.hidden

          parts = host.ascii.split(".")
          parts.each_index.any? { |at| @allowed[parts[at..].join(".")] }
        end

        def why(host)
          return "written to avoid being a link" if host.hidden

          like = @looks[Hosts.looks(host.shown)]
          return "looks like #{like} but is #{host.ascii}" if like
          return "#{host.shown} (#{host.ascii}) is not on your list" if host.shown != host.ascii

          "#{host.ascii} is not on your list"
        end
      end
    end
  end
end
