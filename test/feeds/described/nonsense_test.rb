# frozen_string_literal: true

require_relative "../../support/plain"
require_relative "examples"

# What two platforms of different shape send becomes the same intakes, and nothing that they send does harm.
class DescribedNonsenseTest < Minitest::Test
  # Reads items by a description.
  Reader = Struct.new(:reading) do
    def intake(item) = reading.read(item, 1, 9).intake
  end
  POLLING, SOCKET = %w[lantern skein].map { |name| Reader.new(Examples.description(name).reading) }

  POLLED = {"type" => "message", "id" => "m1", "at" => "2026-11-25T05:52:00.250Z", "text" => "look :owl:", "me" => true, "first" => true,
            "author" => {"login" => "ann", "name" => "Ann", "colour" => "#F3B634", "avatar" => "https://x.example/a.png",
                         "badges" => [{"kind" => "subscriber/12", "picture" => "https://x.example/s.png"}]},
            "emotes" => [{"at" => 5, "length" => 5, "picture" => "https://x.example/owl.png"}], "paid" => {"minor" => 500, "currency" => "EUR"},
            "reply_to" => {"id" => "m0", "name" => "Bob", "text" => "where"}}.freeze
  SENT = {"op" => "event", "kind" => "line", "id" => "m1", "ts" => 1_795_499_520_250, "body" => "look :owl:", "style" => "action", "newcomer" => true,
          "from" => {"login" => "ann", "nick" => "Ann", "tint" => "#f3b634", "face" => "https://x.example/a.png", "badges" => ["subscriber/12"],
                     "badge_pictures" => {"subscriber/12" => "https://x.example/s.png"}},
          "emotes" => [[5, 5, "https://x.example/owl.png"]], "worth" => [500, "EUR"], "re" => %w[m0 Bob where]}.freeze

  def test_both_wires_say_the_same
    polled = POLLING.intake(POLLED)
    sent = SOCKET.intake(SENT)
    assert_equal %w[m1 ann Ann #f3b634], [polled.platform_id, *polled.body.to_a.first(3)]
    assert_equal polled.body.emotes.ranges, sent.body.emotes.ranges
    assert_equal %i[code_points utf16], [polled.body.emotes.unit, sent.body.emotes.unit]
    polled.body.emotes = sent.body.emotes = nil
    assert_equal polled.body, sent.body
    assert_equal 250, polled.platform_time_ms % 1000
  end

  def test_events_with_who_what_and_how_much
    polled = POLLING.intake(POLLED.merge("type" => "visit", "number" => 41))
    sent = SOCKET.intake(SENT.merge("kind" => "visit", "count" => 41))
    [polled, sent].each do |intake|
      assert_equal [:event, :visit, 41, "ann", "5.00 EUR"],
        [intake.kind, intake.body.what, intake.body.number, intake.body.said.login, intake.body.said.paid.words]
    end
  end

  def test_deletes_and_silences
    assert_equal [:delete_line, "m1"], POLLING.intake({"type" => "deleted", "id" => "x", "target" => "m1"}).to_a.values_at(0, 2)
    assert_equal [:clear_person, "ann"],
      POLLING.intake({"type" => "silenced", "author" => {"login" => "ann"}}).to_a.values_at(0, 5)
    assert_equal [:delete_line, "m1"], SOCKET.intake({"kind" => "gone", "line" => "m1"}).to_a.values_at(0, 2)
    assert_equal [:clear_person, "ann"], SOCKET.intake({"kind" => "silenced", "who" => "ann"}).to_a.values_at(0, 5)
  end

  NONSENSE = [nil, true, 7, -1, 1e300, "", "\u0000", "x" * 100_000, [], [[]], [nil], {}, {"a" => {}}, "javascript:alert(1)",
    "2026-99-99T99:99:99Z"].freeze

  # Every field of a good item in turn replaced by every kind of nonsense.
  def test_nonsense_in_any_field_is_left_out_and_never_raises
    [[POLLING, POLLED], [SOCKET, SENT]].each do |reader, good|
      each_spoiled(good) do |spoiled|
        intake = reader.intake(spoiled)
        next if intake.nil?

        assert_kind_of Bavard::Core::Intake, intake
        said = intake.body.respond_to?(:said) ? intake.body.said : intake.body
        next unless said.is_a?(Bavard::Core::Said)

        [said.avatar, *said.badge_pictures&.values, *said.emotes&.ranges&.map(&:last)].compact.each do |address|
          assert_match(%r{\Ahttps?://}, address)
        end
      end
    end
    assert(NONSENSE.all? { |value| POLLING.intake(value).nil? })
  end

  private

  def each_spoiled(value, &block)
    value.each_key do |key|
      NONSENSE.each { |nonsense| yield value.merge(key => nonsense) }
      next unless value[key].is_a?(Hash)

      each_spoiled(value[key]) { |inner| yield value.merge(key => inner) }
    end
  end
end
