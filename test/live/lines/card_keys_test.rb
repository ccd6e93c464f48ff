# frozen_string_literal: true

require_relative "../../support/still_show"
require_relative "../../../lib/bavard/live/lines/card_keys"

class CardKeysTest < StillShowTest
  CardKeys = Bavard::Live::CardKeys
  TWIN = File.expand_path("../../../assets/js/link/card_keys.js", __dir__)

  def setup
    super
    @record = make_show(document: with_chat, on_air: true)
    begin_show
  end

  # Every card in whatever was sent: a hash with a line's id and its fragments.
  def cards(value)
    case value
    when Hash then value.key?("i") && value.key?("f") ? [value] : value.each_value.flat_map { |one| cards(one) }
    when Array then value.flat_map { |one| cards(one) }
    else []
    end
  end

  def test_scripts_know_a_card_s_keys_as_they_are
    assert_equal CardKeys.script, File.read(TWIN), "bin/formats writes it anew"
  end

  def test_cards_that_go_to_pages_have_no_other_keys
    say("hello @#{@record.host_name} what is that?", badges: ["moderator"], paid: Core::Amount.money(500, "EUR"))
    say("buy now at https://reedmere.example/x and nowhere else")
    say("AGAIN AGAIN AGAIN AGAIN AGAIN AGAIN")
    known = CardKeys::ABOUT.keys.flat_map { |group| CardKeys.const_get(group).keys }.map(&:to_s)
    found = cards(frames("prompter:#{@record.id}")) + cards(frames("air:#{@stage.id}"))
    assert_operator found.size, :>=, 6
    assert_empty(found.flat_map(&:keys).uniq - known)
    assert_includes found.flat_map(&:keys), "fd"
  end
end
