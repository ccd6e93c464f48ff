# frozen_string_literal: true

require_relative "highlight"

module Bavard
  module Core
    module Chat
      # Why a reader may want to jump to a line.
      module Attention
        KINDS = %w[mention question first supporter].freeze
        SUPPORTERS = %w[subscriber supporter founder].freeze

        module_function

        # @param line [Line]
        # @param host [String] the host's name
        # @return [Array<String>] some of KINDS
        def of(line, host)
          kinds = []
          kinds << "mention" if Highlight.mentions?(line, host)
          kinds << "question" if question?(line.text)
          kinds << "first" if line.first_time
          kinds << "supporter" if line.paid || line.person.badges.any? { |badge| SUPPORTERS.include?(Dress::Badge.read(badge).kind) }
          kinds
        end

        # A sign of a question in it; the Greek one, which is a semicolon, only at the end of Greek words.
        def question?(text) = text.match?(/[?？؟]|\p{Greek}[;\u037E]\s*\z/)
        private_class_method :question?
      end
    end
  end
end
