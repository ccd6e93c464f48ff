# frozen_string_literal: true

# Writes a show's log to standard output, in a process of its own, so that the show goes on meanwhile.
#   DATABASE_URL=… ruby lib/bavard/exports/run.rb csv SHOW_ID '{"text": "reed"}'

require "json"
require_relative "../store/database"
require_relative "../store/log"
require_relative "formats"

format, show_id, given = ARGV
db = Bavard::Store::Database.open_patiently(ENV.fetch("DATABASE_URL"))
search = Bavard::Store::Log::Search.new(**JSON.parse(given, symbolize_names: true))
feeds = db[:feeds].where(show_id: show_id.to_i).select_hash(:id, %i[name shape colour]).transform_values do |values|
  %i[name shape colour].zip(values).to_h
end
writer = Bavard::Exports::FORMATS.fetch(format).new(feeds)
$stdout.binmode
$stdout.write(writer.head)
Bavard::Store::Log.new(db).each(show_id.to_i, search) { |entry| $stdout.write(writer.entry(entry)) }
$stdout.write(writer.foot)
