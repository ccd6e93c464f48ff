# frozen_string_literal: true

# From outside a machine to its ports: a socket in a folder for each, since files reach where networks do not.
#   ruby doors.rb FOLDER PORT …

require "socket"

def pass_on(from, onto)
  IO.copy_stream(from, onto)
rescue SystemCallError, IOError
  nil
ensure
  # Both ways end together: nobody here keeps one half of a connection.
  [from, onto].each { |one| one.shutdown rescue nil } # rubocop:disable Style/RescueModifier -- it may be over already
end

def let_in(outside, port)
  inside = TCPSocket.new("127.0.0.1", port)
  [[outside, inside], [inside, outside]].map { |from, onto| Thread.new { pass_on(from, onto) } }.each(&:join)
rescue SystemCallError
  nil
ensure
  [outside, inside].compact.each(&:close)
end

folder, *ports = ARGV
ports.map do |port|
  door = UNIXServer.new(File.join(folder, port))
  Thread.new { loop { Thread.new(door.accept) { |outside| let_in(outside, Integer(port)) } } }
end.each(&:join)
