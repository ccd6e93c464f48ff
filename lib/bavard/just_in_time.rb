# frozen_string_literal: true

module Bavard
  # Ruby's compiler, for processes that run for hours. Ruby 3.1 sets 256 MB aside for it in each, and touches all of them at the start: a
  # quarter of a second and as many megabytes for what is over after a second.
  module JustInTime
    # Megabytes of compiled code. A full show takes about 20.
    ROOM_MB = 64
    FLAGS = /--yjit\S*\s*/
    SWITCH = "RUBY_YJIT_ENABLE"

    module_function

    # @param env [Hash] as ENV; "0" at RUBY_YJIT_ENABLE switches it off
    # @return [Hash] what a process that runs long finds in its environment besides
    def on(env = ENV)
      wanted = defined?(RubyVM::YJIT) && env[SWITCH] != "0"
      {SWITCH => nil, "RUBYOPT" => [("--yjit --yjit-exec-mem-size=#{ROOM_MB}" if wanted), plain(env)].compact.join(" ")}
    end

    # From here on whatever this process begins is without it.
    def only_here(env = ENV)
      env["RUBYOPT"] = plain(env)
      env.delete(SWITCH)
    end

    def plain(env) = env["RUBYOPT"].to_s.gsub(FLAGS, "").strip
    private_class_method :plain
  end
end
