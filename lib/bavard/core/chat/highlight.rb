# frozen_string_literal: true

require_relative "../dress/badge"
require_relative "person"

module Bavard
  module Core
    module Chat
      # Which lines a chat piece makes stand out, and by what: what weighs most comes first.
      module Highlight
        module_function

        # @param line [Line]
        # @param piece [Hash] a chat piece
        # @param host [String] the host's name
        # @return [String, nil] one of Pieces::ChatPiece::HIGHLIGHTS
        def of(line, piece, host)
          return "paid" if piece["highlight_paid"] && line.paid
          return "mentions" if piece["highlight_mentions"] && mentions?(line, host)
          return "first" if piece["highlight_first"] && line.first_time

          "moderators" if piece["highlight_moderators"] && line.person.badges.any? { |badge| Dress::Badge.read(badge).kind == "moderator" }
        end

        # Whether it names the host, whole or by one of the names' words.
        def mentions?(line, host)
          names = [host.delete(" "), *host.split].map { |name| Person.fold(name) }
          line.fragments.any? { |kind, text| kind == :mention && names.include?(Person.fold(text.delete_prefix("@"))) }
        end
      end
    end
  end
end
