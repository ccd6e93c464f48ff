# frozen_string_literal: true

# Runs the benches and prints each figure beside its floor and what is promised.

require "fileutils"
require "json"
require_relative "alerts"
require_relative "attacked"
require_relative "backup"
require_relative "cues"
require_relative "described"
require_relative "emotes"
require_relative "flurry"
require_relative "gate"
require_relative "hostile"
require_relative "keyboard_to_screen"
require_relative "legible_pixels"
require_relative "many_screens"
require_relative "many_shows"
require_relative "microphones"
require_relative "pack"
require_relative "pages"
require_relative "pipeline"
require_relative "prompter"
require_relative "relay"
require_relative "restart"
require_relative "endurance"
require_relative "flood"
require_relative "full_house"
require_relative "full_show"
require_relative "stage"
require_relative "three_feeds"
require_relative "voices"
require_relative "workers"
require_relative "machines"
require_relative "simulation"

EVERYTHING = %w[pipeline gate emotes keyboard screens restart feeds pack stage prompter voices microphones cues alerts flurry attacked hostile flood
  many house relay workers backup described legible pages].freeze
wanted = ARGV.empty? ? EVERYTHING : ARGV
found = {ruby: RUBY_DESCRIPTION, at: Time.now.utc.strftime("%FT%TZ")}
found[:pipeline] = Bench::Pipeline.new.run if wanted.include?("pipeline")
found[:gate] = Bench::Gate.new.run if wanted.include?("gate")
found[:keyboard_to_screen] = Bench::KeyboardToScreen.new.run if wanted.include?("keyboard")
found[:many_screens] = Bench::ManyScreens.new.run if wanted.include?("screens")

found[:emotes] = Bench::Emotes.new.run if wanted.include?("emotes")
found[:three_feeds] = Bench::ThreeFeeds.new.run if wanted.include?("feeds")
found[:pack] = Bench::Pack.new.run if wanted.include?("pack")
found[:stage] = Bench::Stage.new.run if wanted.include?("stage")
found[:prompter] = Bench::Prompter.new.run if wanted.include?("prompter")
found[:cues] = Bench::Cues.new.run if wanted.include?("cues")
found[:alerts] = Bench::Alerts.new.run if wanted.include?("alerts")
found[:flurry] = Bench::Flurry.new.run if wanted.include?("flurry")
found[:microphones] = Bench::Microphones.new.run if wanted.include?("microphones")
found[:voices] = Bench::Voices.new.run if wanted.include?("voices")
found[:attacked] = Bench::Attacked.new.run if wanted.include?("attacked")
found[:hostile] = Bench::Hostile.new.run if wanted.include?("hostile")
found[:flood] = Bench::Flood.new.run if wanted.include?("flood")
found[:described] = Bench::Described.new.then { |bench| bench.run.merge(bench.frames(Bench::Described::FRAMES)) } if wanted.include?("described")
found[:legible] = Bench::LegiblePixels.new.run if wanted.include?("legible")
found[:pages] = Bench::Pages.new.run if wanted.include?("pages")
found[:many_shows] = Bench::ManyShows.new.run if wanted.include?("many")
found[:full_house] = Bench::FullHouse.new.run if wanted.include?("house")
found[:relay] = Bench::Relay.new.run if wanted.include?("relay")
found[:workers] = Bench::Workers.new.run if wanted.include?("workers")
found[:restart] = Bench::Restart.new.run if wanted.include?("restart")
found[:backup] = Bench::Backup.new.run if wanted.include?("backup")
found[:full_show] = Bench::FullShow.new.run if wanted.include?("full")
# They need root, and make a network of their own.
found[:machines] = Bench::Machines.new.run if wanted.include?("machines")
found[:simulation] = Bench::Simulation.new.run if wanted.include?("simulation")
# Half an hour and more: only where it is asked for.
found[:endurance] = Bench::Endurance.new.run if wanted.include?("endurance")

rows = [["figure", "measured", "floor in this run", "promised", "steal"]]
if (pipeline = found[:pipeline])
  rows << ["pipeline, one core", "#{pipeline[:lines_per_s]} lines/s", "bare #{(1e6 / pipeline[:bare_us_per_line]).round} lines/s",
    "10 000 lines/s or more", "#{pipeline[:steal_percent]} %"]
  rows << ["pipeline against bare", "#{pipeline[:ratio_to_bare]} ×", "1 ×", "4 × or less", "#{pipeline[:steal_percent]} %"]
end
if (described = found[:described])
  steal = "#{described[:steal_percent]} %"
  rows << ["reading by a description", "#{described[:ratio_to_parser]} ×", "1 ×, a parser written for it", "1.3 × or less", steal]
  rows << ["a description of 30 kinds, from bytes, one core", "#{described[:thirty_kinds_lines_per_s]} lines/s", "-", "5000 lines/s or more", steal]
  rows << ["frames nobody would send, of #{described[:frames]}",
    "#{described[:raised]} raised, #{described[:forged]} forged, #{described[:mb_before]} to #{described[:mb_after]} MB", "-", "0, flat", steal]
end
if (many = found[:many_shows])
  steal = "#{many[:steal_percent]} %"
  rows << ["#{many[:shows]} shows of #{many[:lines]} lines: the port is open, everything answers", "#{many[:port_s]} s, #{many[:ready_s]} s", "-",
    "3 s or less", steal]
  rows << ["one of them on the screen that wakes it, half of the times, the slowest", "#{many[:wake_ms]} ms, #{many[:wake_worst_ms]} ms", "-",
    "500 ms or less", steal]
  rows << ["all asleep", "#{many[:asleep_mb]} MB, #{many[:asleep_percent]} % of a core", "-", "2 % or less", steal]
  rows << ["all awake, each", "#{many[:awake_mb_each]} MB", "-", "-", steal]
  rows << ["all awake, and nobody looks", "#{many[:awake_percent]} % of a core", "-", "-", steal]
end
if (relay = found[:relay])
  nchan, embedded, idle = relay.values_at(:nchan, :embedded, :idle)
  steal = "#{nchan[:steal_percent]} %"
  rows << ["#{relay[:frames]} frames to #{relay[:screens]} screens over nginx with Nchan: deliveries a second; a second of its processor",
    "#{nchan[:a_second]}; #{nchan[:a_processor_second]}", "#{embedded[:a_second]} embedded", "40 000", steal]
  rows << ["#{idle[:screens]} screens that hear nothing but beats: memory of nginx, of the application; a core of nginx",
    "#{idle[:nginx_mb]} MB, #{idle[:application_mb]} MB; #{idle[:nginx_percent_of_a_core]} %", "-", "200 MB for 10 000", "-"]
end
if (backup = found[:backup])
  steal = "#{backup[:steal_percent]} %"
  rows << ["a backup of #{backup[:megabytes]} MB with #{backup[:lines]} lines, and its restore",
    "#{backup[:write_s]} s, #{backup[:read_s]} s; a file of #{backup[:file_mb]} MB, #{backup[:restored]} lines",
    "#{backup[:floor_s]} s to pack the files alone", "-", steal]
end
if (shared = found[:workers])
  steal = "#{shared[:steal_percent]} %"
  rows << ["#{shared[:shows]} shows in #{shared[:workers]} processes, #{shared[:lines_a_s]} lines/s together: half, 99 in 100, lost",
    "#{shared[:half_ms]} ms, #{shared[:late_ms]} ms, #{shared[:lost]}", "-", "-", steal]
  rows << ["one of them killed: longest silence of a screen of its shows, of others", "#{shared[:silence_s]} s, #{shared[:others_silence_s]} s",
    "1 s (beats)", "5 s", steal]
  rows << ["and time of which lines are lost, lines of others lost, lines twice",
    "#{shared[:lost_for_s]} s, #{shared[:of_others_lost]}, #{shared[:twice]}", "-", "-, 0, 0", steal]
end
rows.concat(Bench::Machines.rows(found[:machines])) if found[:machines]
rows.concat(Bench::Simulation.rows(found[:simulation])) if found[:simulation]
if (house = found[:full_house])
  steal = "#{house[:steal_percent]} %"
  rows << ["#{house[:shows]} shows with a feed and a screen, 20 lines/s together: half, 99 in 100, lost",
    "#{house[:all_half_ms]} ms, #{house[:all_late_ms]} ms, #{house[:all_lost]}", "-", "60 ms, 250 ms, 0", steal]
  rows << ["a line beside two shows, #{house[:flooded_lines_a_s]} lines/s in both together: half, 99 in 100, lost",
    "#{house[:beside_half_ms]} ms, #{house[:beside_late_ms]} ms, #{house[:beside_lost]}", "#{house[:calm_late_ms]} ms without",
    "20 ms more or less, 0", steal]
end
if (pages = found[:pages])
  slowest, at = pages[:stations].max_by { |_, one| one[:warm_ms] }
  rows << ["first paint of the slowest of #{pages[:stations].size} stations, half of the times", "#{at[:warm_ms]} ms (#{slowest})",
    "#{pages[:slowest_cold_ms]} ms with nothing kept", "300 ms or less", "-"]
  rows << ["styles and scripts of a station, packed, at most", "#{pages[:most_css_kb]} KB and #{pages[:most_js_kb]} KB", "-", "120 KB or less each",
    "-"]
  path = pages[:stranger]
  rows << ["from no account to a painted line", "#{path[:presses]} presses, #{path[:fields]} fields, #{path[:at_human_pace_s]} s at human pace", "-",
    "8, 3, 180 s or less", "-"]
end
if (legible = found[:legible])
  outfit, worst = legible.min_by { |_, one| one[:worst] }
  rows << ["words in #{legible.size} outfits over each shipped picture, by their pixels", "#{worst[:worst]} : 1 (#{outfit} over #{worst[:over]})",
    "#{worst[:told]} : 1, as Bavard says", "4.5 : 1 or more", "-"]
end
if (gate = found[:gate])
  steal = "#{gate[:steal_percent]} %"
  rows << ["gate, all rules, 10 000 words, one core", "#{gate[:lines_per_s]} lines/s", "#{gate[:ratio_to_normalise_and_split]} × normalise and split",
    "25 000 lines/s or more", steal]
  rows << ["gate with 10 000 words against 100", "#{gate[:ratio_to_100_words]} ×", "1 ×", "1.3 × or less", steal]
  rows << ["replay of 50 000 lines", "#{gate[:replay_50_000_lines_s]} s", "-", "10 s or less", steal]
end
if (cues = found[:cues])
  rows << ["500 cues for one kind of event, one core", "#{cues[:events_per_s]} events/s", "-", "20 000 events/s or more", "#{cues[:steal_percent]} %"]
end
if (endurance = found[:endurance])
  rows << ["memory over #{endurance[:lines]} lines of #{endurance[:writers]} writers, from a quarter of them on",
    "#{endurance[:settled_mb]} to #{endurance[:most_mb]} MB", "#{endurance[:at_first_mb]} MB after a fortieth", "flat", "-"]
end
if (full = found[:full_show])
  rows << ["memory of a show with #{full[:emotes]} emotes and #{full[:words]} stopped words, before and after #{full[:people]} people wrote",
    "#{full[:worn_mb]}, #{full[:once_mb]} and #{full[:twice_mb]} MB", "#{full[:empty_mb]} MB with nothing", "-", "-"]
end
if (flood = found[:flood])
  steal = "#{flood[:steal_percent]} %"
  rows << ["a calm feed beside one with #{flood[:flooded_per_s]} lines/s, 99 in 100", "#{flood[:p99_ms]} ms, #{flood[:never]} never",
    "#{flood[:calm_p99_ms]} ms", "150 ms or less, none", steal]
  rows << ["the brake beside it, at most", "#{flood[:brake_most_ms]} ms, half #{flood[:brake_half_ms]} ms",
    "#{flood[:calm_brake_most_ms]} ms, half #{flood[:calm_brake_half_ms]} ms", "200 ms or less", steal]
  rows << ["of the flood not in the log", flood[:lost].to_s, "-", "0", steal]
end
if (alerts = found[:alerts])
  steal = "#{alerts[:steal_percent]} %"
  painted = alerts[:painted]
  rows << ["an event to the painted alert, half of #{painted[:events]}", "#{painted[:half_ms]} ms, #{painted[:never]} never", "-",
    "80 ms or less", steal]
  rows << ["99 in 100", "#{painted[:p99_ms]} ms", "-", "200 ms or less", steal]
  rows << ["counted of #{alerts[:flood]} gifts in a minute", alerts[:counted].to_s, "-", "all", steal]
  rows << ["alerts on screen at once meanwhile", alerts[:most_on_screen].to_s, "-", "1, coming and going 2", steal]
  rows << ["chat meanwhile, 99 in 100", "#{alerts[:chat_flooded_p99_ms]} ms", "#{alerts[:chat_quiet_p99_ms]} ms without", "150 ms or less", steal]
end
if (flurry = found[:flurry])
  steal = "#{flurry[:steal_percent]} %"
  rows << ["#{flurry[:flying]} emotes in flight, #{flurry[:turning]} of them turning, frames a second", flurry[:frames_per_s].to_s,
    "#{flurry[:idle_frames_per_s]} without", "50 or more", steal]
  rows << ["a firework of #{flurry[:firework]} emotes, frames a second", flurry[:firework_frames_per_s].to_s, "#{flurry[:idle_frames_per_s]} without",
    "50 or more", steal]
  rows << ["page's heap before and after #{flurry[:flown]} flights", flurry[:page_mb].map { |mb| "#{mb} MB" }.join(" to "),
    "#{flurry[:nodes]} elements left", "flat", steal]
  rows << ["application's memory", flurry[:application_mb].map { |mb| "#{mb} MB" }.join(" to "), "-", "flat", steal]
end
if (microphones = found[:microphones])
  steal = "#{microphones[:steal_percent]} %"
  sign = microphones[:sign]
  rows << ["microphone to sign, half (#{sign[:signs]} signs, #{sign[:never]} never)", "#{sign[:half_ms]} ms", "40 ms, its attack", "120 ms or less",
    steal]
  rows << ["microphone to sign, 99 in 100", "#{sign[:p99_ms]} ms", "40 ms, its attack", "300 ms or less", steal]
  rows << ["a microphone page, of one core (all of its browser: #{microphones[:browser_percent]} %)", "#{microphones[:page_percent]} %", "-",
    "2 % or less", steal]
end
if (voices = found[:voices])
  steal = "#{voices[:steal_percent]} %"
  sign = voices[:sign]
  rows << ["a level to the painted sign, half of #{sign[:turns]}, without the attack", "#{sign[:half_ms]} ms, #{sign[:never]} never", "-",
    "80 ms or less", steal]
  rows << ["99 in 100", "#{sign[:p99_ms]} ms", "-", "200 ms or less", steal]
  rows << ["40 people at 50 levels/s, 20 stages, of one core", "#{voices[:cpu_percent]} %", "-", "25 % or less", steal]
end
if (prompter = found[:prompter])
  steal = "#{prompter[:steal_percent]} %"
  rows << ["prompter, #{prompter[:lines]} lines back, frames a second while it scrolls", prompter[:frames_per_s].to_s,
    "#{prompter[:frames_still]} still", "60", steal]
  rows << ["its heap", "#{prompter[:heap_mb]} MB, #{prompter[:nodes]} elements", "-", "150 MB or less", steal]
  {by_another: ["a deed seen by another", 200], on_screen: ["a pull off the screen", 150]}.each do |key, (words, promised)|
    rows << ["#{words}, half and 99 in 100", prompter[key].values.map { |ms| "#{ms} ms" }.join(", "), "-", "#{promised} ms or less", steal]
  end
  rows << ["longest that a machine #{prompter[:slowed]} times slower stands still while #{prompter[:burst_lines]} lines come at once",
    "#{prompter[:burst_stands_still_ms]} ms", "-", "2000 ms or less", steal]
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

if (attacked = found[:attacked])
  floor = attacked[:ways].fetch(:none)
  attacked[:ways].except(:none).each do |way, times|
    rows << ["pages and new screens beside #{attacked[:many]} connections: #{way}, 99 in 100", "#{times[:p99_ms]} ms, #{times[:never]} never",
      "#{floor[:p99_ms]} ms without", "1000 ms or less", "#{times[:steal_percent]} %"]
  end
end

if (hostile = found[:hostile])
  rows << ["#{hostile[:lines]} hostile lines over four ways in: forged, exceptions", "#{hostile[:forged]}, #{hostile[:exceptions]}", "-", "0, 0",
    hostile[:first_exception].to_s]
  rows << ["#{hostile[:drawn]} of them drawn: what became an element or ran, pictures of #{hostile[:pictures]} with a pixel outside",
    "#{hostile[:markup]}, #{hostile[:outside]}", "-", "0, 0", ""]
end

if (restart = found[:restart])
  rows << ["lines missing after kill -9, of #{restart[:promised]}", "#{restart[:missing]}, #{restart[:twice]} twice", "-", "0, 0 twice", ""]
  rows << ["standing again after the new start", restart[:back_ms].map { |ms| "#{ms} ms" }.join(" to "), "-", "3000 ms or less",
    "#{restart[:each].map { |try| try[:steal_percent] }.join(" ")} %"]
  rows << ["the same after an hour of #{Bench::Restart::BUSY} lines", "#{restart[:long_ms]} ms", "-", "3000 ms or less", ""]
end

if (emotes = found[:emotes])
  rows << ["fragments with 50 000 codes", "#{emotes[:lines_per_s]} lines/s", "bare #{emotes[:bare_lines_per_s]} lines/s", "50000 lines/s or more",
    "#{emotes[:steal_percent]} %"]
  rows << ["50 000 codes against 100", "#{emotes[:ratio_to_few]} ×", "1 ×", "1.3 × or less", "#{emotes[:steal_percent]} %"]
end
if (feeds = found[:three_feeds])
  steal = "#{feeds[:steal_percent]} %"
  rows << ["three feeds, lines lost of #{feeds[:said]}", feeds[:lost].to_s, "-", "0, at 1000 lines/s for 60 s", steal]
  rows << ["their pace", "#{feeds[:lines_per_s]} lines/s", "-", "1000 lines/s", steal]
  rows << ["memory after warm-up, first and last", feeds[:memory_mb].map { |mb| "#{mb} MB" }.join(" to "), "-", "flat", steal]
  rows << ["screen behind, 99 in 100", "#{feeds[:behind_p99_ms]} ms", "-", "1000 ms or less", steal]
  rows << ["screen's frames a second", feeds[:frames_per_s].to_s, "#{feeds[:idle_frames_per_s]} with nothing coming in", "50 or more", steal]
end
if (pack = found[:pack])
  rows << ["pack of 900 stills and 100 animations", "#{pack[:took_s]} s", "-", "90 s or less", "#{pack[:steal_percent]} %"]
  rows << ["pages meanwhile, 99 in 100", "#{pack[:pages_p99_ms]} ms", "#{pack[:floor_p99_ms]} ms", "200 ms or less", "#{pack[:refused]} refused"]
end
if (stage = found[:stage])
  steal = "#{stage[:steal_percent]} %"
  rows << ["an edit to the draft, half and 99 in 100", "#{stage[:edit_half_ms]} and #{stage[:edit_p99_ms]} ms", "-", "50 ms or less", steal]
  rows << ["Put on air to a screen, half and 99 in 100", "#{stage[:air_half_ms]} and #{stage[:air_p99_ms]} ms", "-", "150 ms or less", steal]
  rows << ["sixty pieces, frames a second while one is dragged", stage[:sixty_frames_per_s].to_s, "#{stage[:sixty_idle_frames_per_s]} untouched",
    "60", steal]
  rows << ["200 lines/s with motion, frames a second", stage[:flood_frames_per_s].to_s,
    "#{stage[:flood_idle_frames_per_s]} with nothing coming in", "50 or more", steal]
  rows << ["legibility of a whole 1920 × 1080 picture", "#{stage[:legibility_ms]} ms", "-", "100 ms or less", "what helps: #{stage[:clearer_ms]} ms"]
  rows << ["an idle stage in the browser", "#{stage[:idle_percent]} % of a core", "-", "1 % or less", steal]
  rows << ["an outfit to the draft, half and the slowest", "#{stage[:outfit_half_ms]} and #{stage[:outfit_most_ms]} ms", "-", "100 ms or less", steal]
  idle = stage[:outfit_idle_percent].minmax_by(&:last).map { |outfit, percent| "#{percent} % (#{outfit})" }.join(" to ")
  rows << ["one of each piece, idle in each outfit", idle, "-", "1 % or less", steal]
  rows << ["heap after #{stage[:day_lines] / 4} and #{stage[:day_lines]} lines", stage[:day_mb].map { |mb| "#{mb} MB" }.join(" and "), "-",
    "flat", steal]
end

widths = rows.transpose.map { |column| column.map(&:length).max }
rows.each { |row| puts row.each_with_index.map { |cell, index| cell.ljust(widths[index]) }.join("  ").rstrip }
FileUtils.mkdir_p("tmp")
File.write("tmp/bench.json", "#{JSON.pretty_generate(found)}\n")
TestDatabase.stop if wanted.intersect?(%w[keyboard screens restart feeds pack stage prompter voices microphones many house])
