# frozen_string_literal: true

require "openssl"
require "rack"
require_relative "../../core/stage/document"
require_relative "../../error"
require_relative "../http/bodies"
require_relative "asking"

module Bavard
  module Web
    # /now/<stage>/<piece>/<key>: others set the text of a now line, a line each, or say what captions show next, with one
    # request. The key is made of the stage's link and of a secret of this installation: a new link makes it void too, and whoever
    # knows one of link and key cannot work out the other. Documented in docs/sending.md.
    module NowApp
      LARGEST_BODY_BYTES = Bodies.most("/now/")
      PLACE = %r{\A/(\d{1,18})/([a-z_]{1,20}\d{1,6})/(\h{32})\z}
      TEXT = {"content-type" => "text/plain; charset=utf-8"}.freeze

      module_function

      # @param stage [Store::Stages::Stage]
      # @param piece [String] its id
      # @return [String] the end of the address
      def key(site, stage, piece) = OpenSSL::HMAC.hexdigest("SHA256", site.now_secret, [stage.id, piece, stage.token].join(" "))[0, 32]

      def call(env)
        request = Rack::Request.new(env)
        match = PLACE.match(request.path_info)
        return answer(405, "Send the text with POST.") unless request.post?
        return answer(413, "There is room for #{LARGEST_BODY_BYTES / 1024} KB.") if request.content_length.to_i > LARGEST_BODY_BYTES

        show = match && find(env["bavard.site"], match[1].to_i, match[2], match[3])
        show ? set(show, match[1].to_i, match[2], text_of(request)) : answer(404, "Nothing is taken at this address.")
      rescue Error => error
        answer(error.status, error.message)
      end

      def find(site, stage_id, piece, key)
        show, desk = site.shows.by_stage(stage_id)
        show if desk && Rack::Utils.secure_compare(key(site, desk.stage, piece), key)
      end

      def set(show, stage_id, piece, text)
        taken = Asking.of(show) do |running|
          desk = running.desk(stage_id)
          given = Core::Stage::Document.piece(desk.stage.draft, piece)
          next desk.caption(piece, text, running.now_ms) if given && given["kind"] == "captions" && given["source"] == "address"

          desk.set_live { |live| live.text(piece, text) } if given && given["kind"] == "now_line" && given["source"] == "address"
        end
        taken ? answer(202, "Taken.") : answer(422, "That piece does not take anything from its address just now.")
      end

      # A form's field "text", or the body as it is.
      def text_of(request)
        text = request.form_data? && request.media_type ? request.params["text"].to_s : request.body.read(LARGEST_BODY_BYTES).to_s
        text.dup.force_encoding(Encoding::UTF_8).scrub("").delete("\0")
      end

      def answer(status, words) = [status, TEXT.dup, ["#{words}\n"]]
      private_class_method :find, :set, :text_of, :answer
    end
  end
end
