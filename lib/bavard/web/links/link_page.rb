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
        newest, form = @options.properties.values_at("newest", "form")
        parts = @options.properties.slice(*Core::Pieces::LinkOptions::PARTS)
        @app.erb(:link_page, layout: false, locals: {socket: @socket, css:, newest:, form:, side: @side, parts:, only: @options.pieces,
                                                     one_name: @options.properties["name_colour"] == "one",
                                                     not_understood: @options.not_understood, edited: @edited})
      end

      private

      def css
        Core::Style::ChatCss.of_options(@options.properties)
      end
    end
  end
end
