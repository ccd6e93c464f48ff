# frozen_string_literal: true

# Runs the benches and prints each figure beside its floor and what is promised.

require "fileutils"
require "json"
require_relative "keyboard_to_screen"
require_relative "many_screens"
require_relative "pipeline"
require_relative "restart"

wanted = ARGV.empty? ? %w[pipeline keyboard screens restart] : ARGV
found = {ruby: RUBY_DESCRIPTION, at: Time.now.utc.strftime("%FT%TZ")}
found[:pipeline] = Bench::Pipeline.new.run if wanted.include?("pipeline")
found[:keyboard_to_screen] = Bench::KeyboardToScreen.new.run if wanted.include?("keyboard")
found[:many_screens] = Bench::ManyScreens.new.run if wanted.include?("screens")

found[:restart] = Bench::Restart.new.run if wanted.include?("restart")

rows = [["figure", "measured", "floor in this run", "promised", "steal"]]
if (pipeline = found[:pipeline])
  rows << ["pipeline, one core", "#{pipeline[:lines_per_s]} lines/s", "bare #{(1e6 / pipeline[:bare_us_per_line]).round} lines/s",
    "8000 lines/s or more", "#{pipeline[:steal_percent]} %"]
  rows << ["pipeline against bare", "#{pipeline[:ratio_to_bare]} ×", "1 ×", "5 × or less", "#{pipeline[:steal_percent]} %"]
end
if (keyboard = found[:keyboard_to_screen])
  ours, floor = keyboard.values_at(:ours, :floor)
  steal = ours[:windows].map { |window| window[:steal_percent] }.join(" ")
  rows << ["keyboard to screen, half", "#{ours[:half_ms]} ms", "#{floor[:half_ms]} ms", "60 ms or less", "#{steal} %"]
  rows << ["keyboard to screen, 99 in 100", "#{ours[:p99_ms]} ms", "#{floor[:p99_ms]} ms", "150 ms or less", "#{steal} %"]
  deletes = ours[:deletes]
  rows << ["delete off the picture, 99 in 100", "#{deletes[:p99_ms]} ms", "-", "150 ms or less", "#{deletes[:never]} of #{deletes[:lines]} never"]
  rows << ["lines never painted, of #{ours[:lines]}", ours[:never_painted].to_s, floor[:never_painted].to_s, "0", ours[:method]]
end
if (screens = found[:many_screens])
  steal = screens[:windows].map { |window| window[:steal_percent] }.join(" ")
  rows << ["#{screens[:screens]} screens, 99 in 100", "#{screens[:p99_ms]} ms", "#{screens[:floor][:p99_ms]} ms", "500 ms or less", "#{steal} %"]
  rows << ["delivered", "#{screens[:delivered]} of #{screens[:wanted]}", screens[:floor][:delivered].to_s, "all", ""]
end

if (restart = found[:restart])
  rows << ["lines missing after kill -9, of #{restart[:promised]}", "#{restart[:missing]}, #{restart[:twice]} twice", "-", "0, 0 twice", ""]
  rows << ["standing again after the new start", restart[:back_ms].map { |ms| "#{ms} ms" }.join(" to "), "-", "3000 ms or less",
    "#{restart[:each].map { |try| try[:steal_percent] }.join(" ")} %"]
end

widths = rows.transpose.map { |column| column.map(&:length).max }
rows.each { |row| puts row.each_with_index.map { |cell, index| cell.ljust(widths[index]) }.join("  ").rstrip }
FileUtils.mkdir_p("tmp")
File.write("tmp/bench.json", "#{JSON.pretty_generate(found)}\n")
TestDatabase.stop if wanted.intersect?(%w[keyboard screens restart])
