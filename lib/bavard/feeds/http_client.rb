# frozen_string_literal: true

require "json"
require "net/http"
require "uri"
require "zlib"
require_relative "../outward/door"
require_relative "given"
require_relative "trouble"

module Bavard
  module Feeds
    # Asks a platform over HTTP; one connection is kept open from one question to the next.
    class HttpClient
      # The platform cannot be reached; the message says why.
      class Unreachable < StandardError
      end

      # It answered something that cannot be read.
      class Nonsense < StandardError
      end
      # Answers that are none: wrong marks of how they are packed, lengths and lines that cannot be.
      UNREADABLE = [Zlib::Error, Net::HTTPBadResponse, Net::HTTPHeaderSyntaxError, ArgumentError, EncodingError].freeze
      # retry_after_ms:: how long it wants not to be asked, or nil; headers:: by their names in small letters
      Answer = Struct.new(:status, :body, :retry_after_ms, :headers)

      OPEN_WITHIN_S = 6
      READ_WITHIN_S = 8
      LARGEST_BYTES = 4 * 1024 * 1024
      LONGEST_WAIT_S = 3600

      # @param base [String] such as "http://127.0.0.1:4613"
      # @param any [Boolean] whether an answer may be a list as well
      # @param door [Outward::Door] by which it goes out; the operator’s own choice may be anywhere
      def initialize(base, any: false, door: Outward::Door.to(URI(base)))
        @base = URI(base)
        @door = door
        @any = any
      end

      # @return [Answer]
      # @raise [Unreachable, Nonsense]
      def get(path, query: {}, token: nil, headers: {})
        path = "#{path}?#{URI.encode_www_form(query)}" unless query.empty?
        ask(Net::HTTP::Get.new(path, headers), token)
      end

      # @param body [Hash]
      def post(path, body, token:, headers: {})
        request = Net::HTTP::Post.new(path, {**headers, "content-type" => "application/json"})
        request.body = JSON.generate(body)
        ask(request, token)
      end

      def close
        @http&.finish if @http&.started?
      rescue IOError
        nil
      end

      private

      def ask(request, token)
        request["accept"] = "application/json"
        request["accept-encoding"] = "identity"
        request["authorization"] = "Bearer #{token}" if token
        status, headers, body = receive(request)
        Answer.new(status, status.between?(200, 499) ? read(body, status) : {}, wait(headers["retry-after"]), headers)
      rescue *UNREADABLE => error
        forget
        raise Nonsense, "#{@base.host} answered something that cannot be read (#{error.class.name.split("::").last})."
      rescue *Trouble::NETWORK, Net::ProtocolError => error
        forget
        raise Unreachable, Trouble.words(error, @base.host, @base.port, within_s: READ_WITHIN_S)
      end

      def receive(request)
        body = String.new(encoding: Encoding::BINARY)
        response = connection.request(request) do |answer|
          answer.read_body do |bytes|
            body << bytes
            raise Nonsense, "#{@base.host} sent more than #{LARGEST_BYTES / 1024 / 1024} MB at once." if body.bytesize > LARGEST_BYTES
          end
        end
        [response.code.to_i, response.each_header.to_h, body]
      rescue Nonsense
        forget
        raise
      end

      # What is left of that answer is none of the next one's.
      def forget
        close
        @http = nil
      end

      def connection
        return @http if @http&.started?

        @http = @door.http(@base, open_within_s: OPEN_WITHIN_S, read_within_s: READ_WITHIN_S)
        @http.start
      end

      def read(body, status)
        given = Given.json(body)
        given.is_a?(Hash) || (@any && given.is_a?(Array)) ? given : {}
      rescue JSON::ParserError
        return {} if status >= 300

        raise Nonsense, "#{@base.host} answered something that cannot be read."
      end

      # Seconds, or a date (RFC 9110 §10.2.3).
      def wait(given)
        return if given.nil?

        seconds = given.match?(/\A\d+\z/) ? given.to_i : (Time.httpdate(given) - Time.now).ceil
        seconds.clamp(0, LONGEST_WAIT_S) * 1000
      rescue ArgumentError
        nil
      end
    end
  end
end
