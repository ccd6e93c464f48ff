# frozen_string_literal: true

require "json"
require_relative "../../core/style/chat_css"
require_relative "../../core/pieces/link_options"

module Bavard
  module Web
    # The page that draws a stage, as a link or the Stage station shows it: transparent, with nothing on it that the
    # stage does not say.
    class LinkPage
      # @param app [Sinatra::Base] to render with
      # @param socket [String] path of the WebSocket
      # @param query [Hash] options in the link
      # @param edited [Boolean] whether somebody edits it, so that the page may say what it does not understand
      # @param side [String, nil] of the camera that is drawn, where some pieces stand behind it; nil: both
      def initialize(app, socket, query, edited:, side: nil)
        @app = app
        @socket = socket
        @options = Core::Pieces::LinkOptions.read(query.to_h { |name, given| [name.to_s.scrub(""), given.to_s.scrub("")] })
        @edited = edited
        @side = side
      end

      # @return [String] HTML
      def answer
        options = {**asked(@options.properties), only: @options.pieces, of: @options.of.transform_values { |one| asked(one) }}
        @app.erb(:link_page, layout: false,
          locals: {socket: @socket, options:, side: @side, not_understood: @options.not_understood, edited: @edited})
      end

      private

      # What is drawn otherwise, as the page's scripts take it.
      def asked(properties)
        newest, form, lines, stays_ms = properties.values_at("newest", "form", "at_most", "stay_ms")
        {css: Core::Style::ChatCss.of_options(properties), parts: properties.slice(*Core::Pieces::LinkOptions::PARTS),
         newest:, form:, lines:, staysMs: stays_ms, oneName: properties["name_colour"] == "one" || nil}.compact
      end
    end
  end
end
