# bash completion of anlage; made from its command table
_anlage() {
  local current="${COMP_WORDS[COMP_CWORD]}" words=""
  if [[ $COMP_CWORD -eq 1 ]]; then
    words="calc coupon ranges check diff draft plan print schema export import verify recover rules verify-pack demo screenshots --help --version"
    COMPREPLY=($(compgen -W "$words" -- "$current") $(compgen -f -X '!*.anlage' -- "$current"))
    return
  fi
  case "${COMP_WORDS[1]}" in
    calc) words='-h --help --json' ;;
    coupon) words='-h --help --code --works --json' ;;
    ranges) words='-h --help --code --works --json' ;;
    check) words='-h --help --pqr --works --code --json' ;;
    diff) words='-h --help --pqr --works --code --json' ;;
    draft) words='-h --help --json -o --output --works --force' ;;
    plan) words='-h --help --code --cost --pqr --works --json' ;;
    print) words='-h --help -o --output --pqr --works --calibration-months --paper --force --json' ;;
    schema) words='-h --help --json' ;;
    export) words='-h --help -o --output --picture --force --json' ;;
    import) words='-h --help --into --by --json' ;;
    verify) words='-h --help --expect --json' ;;
    recover) words='-h --help -o --output --json' ;;
    rules) words='-h --help --clause --variable --unchecked -o --output --works --sign --by --copy --overlay --take-back --export --units --paper --force --json' ;;
    verify-pack) words='-h --help --json' ;;
    demo) words='-h --help --reset' ;;
    screenshots) words='-h --help --force --json' ;;
  esac
  if [[ $current == -* ]]; then
    COMPREPLY=($(compgen -W "$words" -- "$current"))
  else
    COMPREPLY=($(compgen -f -- "$current"))
  fi
}
complete -o filenames -F _anlage anlage
