# frozen_string_literal: true

require "erb"
require_relative "assets"

module Bavard
  module Web
    # What is answered where no station can: as a page to whoever opened one, which asks again by itself where that may help; as text to
    # programs. On the broadcast picture nothing is ever said: what is opened there is empty, transparent, and asks again.
    module BarePage
      AGAIN_S = 2
      # To whatever is theirs, or to the form by which one signs in.
      ON = ["/", "Go on"].freeze
      UNREAD = "That request cannot be read."
      TITLES = {404 => "Nothing here", 503 => "One moment"}.freeze
      # Pages that viewers see. Transparent, as a stage without anything on it.
      ON_PICTURE = %r{\A/air/}
      ERB.new(File.read(File.expand_path("bare_page.erb", __dir__)), trim_mode: "<>")
        .def_method(self, "html(title, words, again_s, out = nil)", "bare_page.erb")
      module_function :html
      EMPTY = <<~HTML.freeze
        <!doctype html>
        <html lang="en"><head><meta charset="utf-8"><title>bavard</title><meta http-equiv="refresh" content="#{AGAIN_S}"></head><body></body></html>
      HTML
      TEXT = {"content-type" => "text/plain; charset=utf-8"}.freeze
      PAGE = {"content-type" => "text/html; charset=utf-8", "cache-control" => "no-store"}.freeze

      module_function

      # @param env [Hash] Rack's
      # @param status [Integer] of HTTP
      # @param words [String] a sentence or two, without markup
      # @param out (see #page)
      # @return [Array] a Rack answer
      def answer(env, status, words, out: nil)
        waits = status == 503 ? {"retry-after" => AGAIN_S.to_s} : {}
        return [status, {**TEXT, **waits}, [words]] unless page?(env)

        [status, {**PAGE, **waits}, [env["PATH_INFO"].to_s.match?(ON_PICTURE) ? EMPTY : page(env, status, words.strip, out:)]]
      end

      # @param out [Array(String, String), nil] where it leads on to: a path and its words
      # @return [String] HTML
      def page(env, status, words, out: nil) = html(title(status), words, again_s(env, status), out)

      def title(status) = TITLES.fetch(status, "That did not work")

      # @return [Integer, nil] after how many seconds a page asks again by itself. Whoever sent something is not asked to send it again.
      def again_s(env, status) = (AGAIN_S if status == 503 && env["REQUEST_METHOD"] == "GET")

      # Programs are told in text.
      def page?(env) = %w[GET POST].include?(env["REQUEST_METHOD"]) && env["HTTP_ACCEPT"].to_s.include?("text/html")
    end
  end
end
