# frozen_string_literal: true

require "time"

module Oxbow
  # Reading and writing the protocol's lines. Written apart from Bavard's own on purpose: two readings of one standard.
  module Wire
    LONGEST = 16_384
    ESCAPES = {";" => "\\:", " " => "\\s", "\\" => "\\\\", "\r" => "\\r", "\n" => "\\n"}.freeze

    module_function

    # @return [Array(Hash, String, Array<String>)] tags, command, parameters
    def parse(bytes)
      text = bytes.dup.force_encoding(Encoding::UTF_8).scrub("?").chomp.delete("\0")
      tags = {}
      if text.start_with?("@")
        head, text = text.split(" ", 2)
        tags = head[1..].split(";").to_h { |pair| pair.split("=", 2).then { |key, value| [key, value.to_s] } }
      end
      text = text.to_s.sub(/\A:\S+ +/, "")
      middle, trailing = text.split(" :", 2)
      words = middle.to_s.split
      words << trailing if trailing
      [tags, words.shift&.upcase, words]
    end

    # @return [String] the event as a client that was granted these capabilities gets it
    def event(event, channel, granted, batch)
      tags = tags_for(event, granted)
      tags["batch"] = batch if batch
      head = tags.empty? ? "" : "@#{tags.map { |key, value| "#{key}=#{value.gsub(/[; \\\r\n]/, ESCAPES)}" }.join(";")} "
      source = "#{head}:#{event.nick}!#{event.nick}@oxbow #{event.kind} #{channel}"
      case event.kind
      when "TAGMSG" then source
      when "KICK" then "#{source} #{event.text} :put out"
      else "#{source} :#{event.text}"
      end
    end

    def tags_for(event, granted)
      tags = {}
      tags["time"] = Time.at(event.at_ms/1000r).utc.iso8601(3) if granted.include?("server-time")
      tags["account"] = event.tags["account"] if event.tags["account"] && granted.include?("account-tag")
      return tags unless granted.include?("message-tags")

      tags.merge("msgid" => event.id).merge(event.tags.except("account"))
    end
    private_class_method :tags_for
  end
end
