# frozen_string_literal: true

require "erubi"
require "json"
require "sinatra/base"
require "tilt/erubi"
require "rack/protection/authenticity_token"
require_relative "../error"

module Bavard
  module Web
    # What all stations of the signal line share: the show of whoever is signed in, and how errors are told.
    class Station < Sinatra::Base
      LARGEST_BODY_BYTES = 256 * 1024
      # Of the signal line: key, path, label, icon.
      STATIONS = [
        ["feeds", "/feeds", "Feeds", "plug-zap"], ["gate", "/gate", "Gate", "list-filter"],
        ["dress", "/dress", "Dress", "shapes"], ["stage", "/stage", "Stage", "frame"], ["air", "/links", "Air", "radio-tower"]
      ].freeze

      set :views, File.join(__dir__, "views")
      set :erb, escape_html: true, layout: :layout
      set :show_exceptions, false
      set :raise_errors, false
      set :dump_errors, false
      set :protection, except: %i[session_hijacking remote_token json_csrf frame_options xss_header host_authorization]
      set :host_authorization, permitted_hosts: []
      set :static, false

      use Rack::Protection::AuthenticityToken, key: "csrf", authenticity_param: "csrf"

      before do
        request.env["rodauth"].require_account
        halt 413, problem("That is more than fits into one request.") if request.content_length.to_i > largest_body_bytes
        @record = site.house.shows.of_account(request.env["rodauth"].account_id)
        cache_control :no_store
      end

      error Bavard::Error do
        error = env["sinatra.error"]
        status 422
        problem(error.message, field: error.field)
      end

      error Sequel::DatabaseError, Sequel::PoolTimeout do
        site.house.log.warn("a page could not reach the database", env["sinatra.error"])
        status 503
        problem("The database does not answer just now. What is on air goes on; try again in a moment.")
      end

      error do
        site.house.meters.fault(:web)
        site.house.log.error("a page failed", env["sinatra.error"])
        status 500
        problem("Something went wrong on our side. It is in the log; what is on air goes on.")
      end

      not_found { problem("There is nothing at this address.") }

      helpers do
        def site = env["bavard.site"]

        # More for a station that takes files.
        def largest_body_bytes = LARGEST_BODY_BYTES

        # @return [Live::Show] the running show of whoever is signed in
        def show
          site.shows[@record.id] || site.shows.run(@record.id)
        end

        def ask(&work) = show.ask(&work)

        # @return [String] who acts, as others see it
        def actor = @record.host_name

        def csrf = Rack::Protection::AuthenticityToken.token(env["rack.session"])

        def station_label
          STATIONS.find { |key, *| key == @here }&.at(2) || "Nothing here"
        end

        def icon(name, label: nil)
          Icon.svg(name, label:)
        end

        # @return [Hash] the request's JSON
        def body_json
          given = JSON.parse(request.body.read, max_nesting: 20)
          given.is_a?(Hash) ? given : raise(Error.new("That is not what this page sends.", field: "body"))
        rescue JSON::ParserError, EncodingError
          raise Error.new("That is not what this page sends.", field: "body")
        end

        def json(value)
          content_type :json
          JSON.generate(value)
        end

        # The form's fields as plain text.
        def fields(*names)
          names.to_h { |name| [name, text(params[name])] }
        end

        def text(value)
          value.is_a?(String) ? value.scrub("").delete("\0") : ""
        end

        # To be read before {#ask}: what is no id halts this request.
        def id(value)
          text(value)[/\A\d{1,18}\z/]&.to_i || not_found
        end

        def problem(message, field: nil)
          return json(error: message, field:) if request.xhr? || request.media_type == "application/json"

          @message = message
          erb :problem, layout: @record ? :layout : false
        end
      end
    end
  end
end
