# frozen_string_literal: true

require "json"
require "sequel"
require "sinatra/base"
require_relative "../../../error"
require_relative "../../../live/show/elsewhere"
require_relative "../../http/bare_page"
require_relative "../../http/not_kept"
require_relative "../../http/there"
require_relative "icon"

module Bavard
  module Web
    # How pages of the application read what they are given, and how they tell what went wrong.
    module StationWords
      # Those of Rack's that Sinatra leaves as they are.
      UNREAD = [Rack::QueryParser::QueryLimitError, Rack::QueryParser::ParamsTooDeepError].freeze

      # @param app [Class] whose errors are told in words
      def self.errors(app)
        app.error(Bavard::Error) do
          error = env["sinatra.error"]
          status error.status
          headers "retry-after" => BarePage::AGAIN_S.to_s if error.status == 503
          problem(error.message, field: error.field)
        end

        app.error(Live::Elsewhere) { halt There.answer(env, env["sinatra.error"].address) }

        not_kept(app)
        unread(app)
        faults(app)
      end

      # What can be read or kept only later.
      def self.not_kept(app)
        app.error(*NotKept::KINDS) do
          site.log.warn("a page could not reach the database", env["sinatra.error"])
          status 503
          problem(NotKept.words(site, env["sinatra.error"]))
        end
      end

      # What is not ours to mend.
      def self.unread(app)
        app.error(Sinatra::BadRequest, *UNREAD) do
          site.mishaps.rejected(:web, "a request that cannot be read")
          status 400
          problem(BarePage::UNREAD, out: way_out && BarePage::ON)
        end
      end

      # What is reached by a link alone: no cookie is set or read, and faults are told in words.
      #
      # @param app [Class]
      def self.by_link(app)
        app.set :erb, escape_html: true, layout: false
        %i[show_exceptions raise_errors dump_errors protection static].each { |name| app.set name, false }
        app.set :host_authorization, permitted_hosts: []
        errors(app)
      end

      # What is ours to mend.
      def self.faults(app)
        # What does not fit into a database that is there is no outage.
        app.error(Sequel::ConstraintViolation, StandardError) do
          site.mishaps.fault(:web, "a page failed", env["sinatra.error"])
          status 500
          problem("Something went wrong on our side. It is in the log; what is on air goes on.")
        end

        app.not_found { problem("There is nothing at this address.") }
      end
      private_class_method :faults, :not_kept, :unread

      def site = env["bavard.site"]

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

      def icon(name, label: nil)
        Icon.svg(name, label:)
      end

      # @return [Array(String, String), nil] where a page leads on to that has nothing around it: a path and its words
      def way_out = nil

      # A page where one is asked for, else JSON.
      #
      # @param out [Array(String, String), nil] see {#way_out}
      def problem(message, field: nil, out: way_out)
        return json(error: message, field:) if request.xhr? || request.media_type == "application/json"

        @message = message
        # The station's own script finds nothing of it there.
        @here = nil
        return BarePage.page(env, response.status, message, out:) unless @record

        @label = BarePage.title(response.status)
        @again_s = BarePage.again_s(env, response.status)
        erb :problem
      end
    end
  end
end
