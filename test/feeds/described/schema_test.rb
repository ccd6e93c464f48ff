# frozen_string_literal: true

require "json_schemer"
require_relative "../../support/plain"
require_relative "../../../lib/bavard/feeds/described/schema"
require_relative "examples"

# What is published of the format says the same as what reads it.
class DescribedSchemaTest < Minitest::Test
  PUBLISHED = JSON.parse(File.read(File.expand_path("../../../docs/formats/platform.schema.json", __dir__)))
  SCHEMA = JSONSchemer.schema(PUBLISHED)
  READS = [{"is" => "line", "login" => "u"}].freeze

  def used?(document)
    Bavard::Feeds::Described::Description.read(document)
    true
  rescue Bavard::Feeds::Described::Faulty
    false
  end

  def test_it_is_up_to_date = assert_equal(PUBLISHED, JSON.parse(JSON.generate(Bavard::Feeds::Described::Schema.schema)))

  def test_every_example_fits = Examples.all.each { |name| assert_empty SCHEMA.validate(Examples.whole(name)).map { |error| error["error"] }, name }

  def test_both_take_the_same_and_refuse_the_same
    kettle = Examples.document("kettle").except("joins").merge("reads" => READS)
    fine = [{}, {"poll" => {"ask" => "/{room}", "wait_ms" => "w"}}, {"secrets" => {"key" => "Key"}, "headers" => {"x-key" => "{key}"}},
      {"reads" => [{"is" => "line", "login" => "u", "emotes" => {"parts" => "p", "text" => "t", "picture" => "s"}}]},
      {"reads" => [{"is" => "totals", "followers" => "n"}, {"is" => "begun", "when" => "on"}]},
      {"badges" => {"warden/1" => nil, "ringer" => "https://x.example/{id}.png"}}]
    wrong = [{"format" => 1}, {"more" => 1}, {"reads" => []}, {"reads" => [{"is" => "line"}]}, {"reads" => [{"is" => "song", "login" => "u"}]},
      {"reads" => [{"is" => "clear", "login" => "u"}]}, {"poll" => {}}, {"poll" => {"ask" => "/", "ends" => {"404" => "sad"}}}, {"poll" => {"ask" => "/", "more" => 1}},
      {"stream" => {"at" => "/"}}, {"asks" => {"A b" => "x"}}, {"asks" => {"token" => "x"}}, {"joins" => {"by" => {"in" => "a"}}}, {"key" => "No"},
      {"reads" => [READS[0].merge("roles" => {"at" => "r"})]}, {"reads" => [READS[0].merge("text" => {"at" => "t", "in" => "rtf"})]},
      {"reads" => [READS[0].merge("emotes" => {})]}, {"badges" => []}, {"badges" => {"a b" => nil}}, {"badges" => {"a" => "/x"}}, {"badges" => {"a" => 1}},
      {"badges" => (0..100).to_h { |number| ["b#{number}", nil] }}, {"reads" => [READS[0].merge("reply" => {"who" => "x"})]}]
    irc = [{"irc" => {"host" => "x.example", "tags" => {"id" => "id", "badges" => %w[a b]}}}, {"irc" => {"host" => "x.example", "port" => 6667, "tls" => false}}]
    no_irc = [{"irc" => {}}, {"irc" => {"host" => "x.example", "tags" => {"song" => "x"}}}, {"irc" => {"host" => "x.example"}, "reads" => READS},
      {"irc" => {"host" => "x.example"}, "poll" => {"ask" => "/"}}, {"irc" => {"host" => "x.example"}, "asks" => {}}]
    {irc => true, no_irc => false}.each do |changes, taken|
      changes.each { |change| kettle.slice("format", "key", "name").merge(change).then { |one| assert_equal [taken, taken], [used?(one), SCHEMA.valid?(one)], change.inspect } }
    end
    {fine => true, wrong => false}.each do |changes, taken|
      changes.each { |change| assert_equal [taken, taken], [used?(kettle.merge(change)), SCHEMA.valid?(kettle.merge(change))], change.inspect }
    end
  end
end
